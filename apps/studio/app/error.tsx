'use client';

import Button from '@mui/material/Button';
import { Missing } from '@/ui/Missing';

/** What a page shows in its place when it fails as a whole. */
export default function PageError({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <Missing
      what="This page could not be shown."
      advice={`Nothing is lost: scenes are kept on this device after every change. The reason: ${error.message}`}
    >
      <Button variant="contained" onClick={reset}>
        Show it again
      </Button>
    </Missing>
  );
}
