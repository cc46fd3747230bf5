'use client';

import Alert from '@mui/material/Alert';
import AlertTitle from '@mui/material/AlertTitle';
import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';
import { create } from 'zustand';
import { Problem } from '@uvrex/core';

export interface Toast {
  tone: 'info' | 'success' | 'error';
  text: string;
  /** What to do about it. */
  advice?: string;
  action?: { label: string; run: () => void };
}

const useToasts = create<{ current: (Toast & { key: number }) | null }>(() => ({ current: null }));

let count = 0;

/** Shows a message at the foot of the page; a new one takes the place of the old. */
export const say = (toast: Toast): void => useToasts.setState({ current: { ...toast, key: ++count } });

/** Shows what went wrong and what to do. */
export function sayProblem(error: unknown): void {
  if (error instanceof Problem) say({ tone: 'error', text: error.message, advice: error.advice });
  else say({ tone: 'error', text: error instanceof Error ? error.message : String(error) });
}

export function Toasts() {
  const current = useToasts((state) => state.current);
  const close = (): void => useToasts.setState({ current: null });
  if (!current) return null;
  const { tone, text, advice, action, key } = current;
  return (
    <Snackbar
      key={key}
      open
      autoHideDuration={tone === 'error' ? null : 7000}
      onClose={(_, reason) => reason !== 'clickaway' && close()}
      anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}
    >
      <Alert
        severity={tone}
        variant="outlined"
        onClose={close}
        sx={{ bgcolor: 'background.paper', maxWidth: 620, alignItems: 'center' }}
        action={
          action && (
            <Button
              onClick={() => {
                action.run();
                close();
              }}
            >
              {action.label}
            </Button>
          )
        }
      >
        {advice ? <AlertTitle sx={{ fontSize: 14 }}>{text}</AlertTitle> : text}
        {advice}
      </Alert>
    </Snackbar>
  );
}
