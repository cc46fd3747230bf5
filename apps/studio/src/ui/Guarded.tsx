'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import { ErrorBoundary } from 'react-error-boundary';

/** A part of the studio that may fail without taking the others down. */
export function Guarded({ what, children }: { what: string; children: ReactNode }) {
  return (
    <ErrorBoundary
      fallbackRender={({ resetErrorBoundary }) => (
        <Box role="alert" sx={{ p: 2, fontSize: 13, overflow: 'auto', minWidth: 0, minHeight: 0 }}>
          <Box sx={{ fontWeight: 650, pb: 0.5 }}>{what} could not be shown.</Box>
          Nothing is lost: the scene is kept as it is. Load the page again where it goes on.
          <Box sx={{ pt: 1 }}>
            <Button variant="outlined" color="inherit" onClick={resetErrorBoundary}>
              Show it again
            </Button>
          </Box>
        </Box>
      )}
    >
      {children}
    </ErrorBoundary>
  );
}
