'use client';

import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import type { ReactNode } from 'react';
import { Toasts } from './Toasts';
import { theme } from './theme';

/** What every page stands in: theme, base styles, messages. */
export function Shell({ children }: { children: ReactNode }) {
  return (
    <ThemeProvider theme={theme}>
      <CssBaseline />
      {children}
      <Toasts />
    </ThemeProvider>
  );
}
