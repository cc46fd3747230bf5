'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import { say, sayProblem } from '@/state/toasts';

interface Room {
  used: number;
  most: number;
  /** Whether the browser has promised to keep it; null where it does not say. */
  kept: boolean | null;
}

/** How much of this device the library takes, and whether the browser may clear it away. */
export function Storage() {
  const [room, setRoom] = useState<Room | null>(null);
  const look = async (): Promise<void> => {
    const { usage = 0, quota = 0 } = await navigator.storage.estimate();
    setRoom({ used: usage, most: quota, kept: (await navigator.storage.persisted?.()) ?? null });
  };
  useEffect(() => {
    // A browser that does not tell is not asked again.
    void look().catch(() => undefined);
  }, []);
  if (!room) return null;
  const ask = async (): Promise<void> => {
    const kept = await navigator.storage.persist();
    await look();
    say(
      kept
        ? { tone: 'success', text: 'The browser keeps your scenes, however full the device gets.' }
        : {
            tone: 'info',
            text: 'The browser has not promised it: it may clear your scenes away when the device is full.',
            advice: 'Export what must not be lost as a zip.',
          },
    );
  };
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, pt: 2.5, fontSize: 13, color: 'text.secondary' }}>
      <span data-testid="storage">
        {sizeOf(room.used)} of {sizeOf(room.most)} used on this device.
        {room.kept === true && ' The browser keeps it for good.'}
      </span>
      {room.kept === false && (
        <Button variant="outlined" color="inherit" onClick={() => void ask().catch(sayProblem)}>
          Ask the browser to keep it
        </Button>
      )}
    </Box>
  );
}

const sizeOf = (bytes: number): string =>
  bytes >= 1e9
    ? `${(bytes / 1e9).toFixed(1)} GB`
    : bytes >= 1e6
      ? `${(bytes / 1e6).toFixed(1)} MB`
      : `${Math.ceil(bytes / 1e3)} kB`;
