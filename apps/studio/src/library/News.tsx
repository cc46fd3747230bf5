'use client';

import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import { useEffect, useState } from 'react';
import { INK } from '@/ui/theme';
import { newsSeen, noteNewsSeen } from './edition';

/** What is new, told once to who has worked here before. */
const NEWS: readonly [what: string, how: string][] = [
  ['Groups', 'Choose several growths with Shift or Ctrl, and Group: they fold, hide and run late together.'],
  ['Versions', 'Ctrl S keeps a state of the scene; go back to it, or play two beside each other.'],
  ['The view', 'Front, side and top by 1, 2, 3; grid by X, distances by R; move, turn and size a growth by H.'],
  ['Lessons', 'They stand beside the work, check off what you have done, and do it for you where you like.'],
  ['Your scenes', 'Find and sort them, put them into folders, take several out as one zip.'],
];

/** @param begun whether there are scenes on this device; undefined until that is known */
export function News({ begun }: { begun: boolean | undefined }) {
  const [shown, setShown] = useState(false);
  useEffect(() => {
    if (begun === undefined) return;
    try {
      const seen = newsSeen();
      // To who is new here everything is.
      if (!begun) noteNewsSeen();
      else setShown(!seen);
    } catch {
      // Where nothing is kept it would be told at every visit.
    }
  }, [begun]);
  if (!shown) return null;
  const close = (): void => {
    setShown(false);
    noteNewsSeen();
  };
  return (
    <Box
      component="section"
      aria-label="What is new"
      sx={{
        position: 'relative',
        maxWidth: 860,
        p: 2,
        pr: 6,
        mb: 2,
        borderRadius: 4,
        border: `1px solid ${INK.line}`,
        bgcolor: '#142026c8',
        fontSize: 13.5,
        lineHeight: 1.6,
      }}
    >
      <Box component="h2" sx={{ m: 0, pb: 0.5, fontSize: 15 }}>
        What is new
      </Box>
      {NEWS.map(([what, how]) => (
        <Box key={what}>
          <b>{what}.</b>{' '}
          <Box component="span" sx={{ color: 'text.secondary' }}>
            {how}
          </Box>
        </Box>
      ))}
      <IconButton aria-label="Close what is new" onClick={close} sx={{ position: 'absolute', top: 10, right: 10 }}>
        <Close fontSize="small" />
      </IconButton>
    </Box>
  );
}
