'use client';

import Alert from '@mui/material/Alert';
import AlertTitle from '@mui/material/AlertTitle';
import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';
import type { Toast } from '@/state/toasts';

/** A message at the foot of the page; errors stay until they are closed. */
export function ToastView({ toast, close }: { toast: Toast; close: () => void }) {
  const { tone, text, advice, action, lasting } = toast;
  return (
    <Snackbar
      open
      autoHideDuration={tone === 'error' || lasting ? null : 7000}
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
