'use client';

import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import useMediaQuery from '@mui/material/useMediaQuery';
import { type ReactNode, useEffect } from 'react';
import { Toasts } from './Toasts';
import { still, theme } from './theme';
import { watchPage } from './watchPage';

/** What every page stands in: theme, base styles, messages. */
export function Shell({ children }: { children: ReactNode }) {
  useEffect(watchPage, []);
  const calm = useMediaQuery('(prefers-reduced-motion: reduce)');
  return (
    <ThemeProvider theme={calm ? still : theme}>
      <CssBaseline />
      {children}
      <Toasts />
    </ThemeProvider>
  );
}
