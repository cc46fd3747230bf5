import { ThemeProvider } from '@mui/material/styles';
import { fireEvent, render, type RenderResult } from '@testing-library/react';
import type { ReactNode } from 'react';
import { still } from './theme';

/** Renders as the studio does, without motion. For tests. */
export const renderThemed = (shown: ReactNode): RenderResult =>
  render(shown, { wrapper: ({ children }) => <ThemeProvider theme={still}>{children}</ThemeProvider> });

/** The main pointer on a thing, as a browser tells of it, at places of the window in pixels. For tests. */
export function pointerOn(thing: Element) {
  const tell =
    (kind: 'pointerDown' | 'pointerMove' | 'pointerUp', buttons: number) =>
    (clientX: number, clientY = 0, more: object = {}): void =>
      void fireEvent[kind](thing, { pointerId: 1, buttons, clientX, clientY, ...more });
  return {
    down: tell('pointerDown', 1),
    move: tell('pointerMove', 1),
    up: tell('pointerUp', 0),
    /** The browser takes the pointer away. */
    cancel: (): void => void fireEvent.pointerCancel(thing, { pointerId: 1 }),
  };
}
