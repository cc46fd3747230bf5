'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { INK } from '@/ui/theme';

interface Props {
  actions: readonly { label: string; run: () => void }[];
  /** What is being done, as it is told; null while nothing is. */
  doing: string | null;
  /** How much of it is done, 0..1, where that is known. */
  share?: number;
  cancel: () => void;
}

/** What a check can do; while it works, how far it is and how to stop it. */
export function CheckBar({ actions, doing, share, cancel }: Props) {
  return (
    <>
      <Box sx={{ display: 'flex', gap: 1 }}>
        {actions.map(({ label, run }) => (
          <Button
            key={label}
            variant="outlined"
            color="inherit"
            disabled={doing !== null}
            onClick={run}
            sx={{ borderColor: INK.line }}
          >
            {label}
          </Button>
        ))}
        {doing && (
          <Button color="inherit" onClick={cancel}>
            Cancel
          </Button>
        )}
      </Box>
      {doing && (
        <LinearProgress
          {...(share !== undefined && { variant: 'determinate', value: 100 * share })}
          aria-label={doing}
          sx={{ mt: 1 }}
        />
      )}
    </>
  );
}
