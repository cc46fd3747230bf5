'use client';

import Box from '@mui/material/Box';
import { Missing, plainButton } from '@/ui/Missing';

/** What a page shows in its place when it fails as a whole. */
export default function PageError({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <Missing
      what="This page could not be shown."
      advice={`Nothing is lost: scenes are kept on this device after every change. The reason: ${error.message}`}
    >
      <Box component="button" onClick={reset} sx={plainButton}>
        Show it again
      </Box>
    </Missing>
  );
}
