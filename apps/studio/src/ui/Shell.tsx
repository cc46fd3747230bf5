'use client';

import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import useMediaQuery from '@mui/material/useMediaQuery';
import { type ReactNode, useEffect } from 'react';
import { Toasts } from './Toasts';
import { still, theme } from './theme';

/** What every page stands in: theme, base styles, messages. */
export function Shell({ children }: { children: ReactNode }) {
  useEffect(() => {
    let stop = (): void => undefined;
    let gone = false;
    // Loaded when the page stands: it is no part of the first picture.
    void import('./watchPage').then(({ watchPage }) => {
      if (!gone) stop = watchPage();
    });
    return () => {
      gone = true;
      stop();
    };
  }, []);
  const calm = useMediaQuery('(prefers-reduced-motion: reduce)');
  return (
    <ThemeProvider theme={calm ? still : theme}>
      <CssBaseline />
      {children}
      <Toasts />
    </ThemeProvider>
  );
}
