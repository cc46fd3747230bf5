import { ThemeProvider } from '@mui/material/styles';
import { render, type RenderResult } from '@testing-library/react';
import type { ReactNode } from 'react';
import { still } from './theme';

/** Renders as the studio does, without motion. For tests. */
export const renderThemed = (shown: ReactNode): RenderResult =>
  render(shown, { wrapper: ({ children }) => <ThemeProvider theme={still}>{children}</ThemeProvider> });
