'use client';

import Alert from '@mui/material/Alert';
import { useResults } from '@/state/director/results';

/** Says over the picture that the engine had to be started again, and what to do. */
export function LostNotice() {
  const lost = useResults((state) => state.lost);
  if (!lost) return null;
  return (
    <Alert
      severity="error"
      variant="outlined"
      onClose={() => useResults.setState({ lost: null })}
      sx={{
        position: 'absolute',
        top: 52,
        left: '50%',
        transform: 'translateX(-50%)',
        maxWidth: 560,
        bgcolor: 'background.paper',
      }}
    >
      {lost.what} {lost.advice}
    </Alert>
  );
}
