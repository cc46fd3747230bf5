'use client';

import Box from '@mui/material/Box';
import { useEffect, useRef } from 'react';
import { Stage } from './Stage';

/** Holds the stage's canvas, and keeps it as large as its place. */
export function Surface() {
  const box = useRef<HTMLDivElement>(null);

  useEffect(() => {
    const holder = box.current!;
    const stage = new Stage();
    holder.append(stage.canvas);
    const observer = new ResizeObserver(() => {
      const { width, height } = holder.getBoundingClientRect();
      stage.resize(width, height);
    });
    observer.observe(holder);
    return () => {
      observer.disconnect();
      stage.dispose();
    };
  }, []);

  return <Box ref={box} sx={{ position: 'absolute', inset: 0 }} />;
}
