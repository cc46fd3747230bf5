'use client';

import { createRoot, type ReconcilerRoot } from '@react-three/fiber';
import Box from '@mui/material/Box';
import { useEffect, useRef } from 'react';
import { Stage } from './Stage';

/**
 * The canvas that the stage draws on. The root is made by hand: the ready-made component registers all of three.js,
 * and most of it is never used here.
 */
export function Surface() {
  const box = useRef<HTMLDivElement>(null);

  useEffect(() => {
    const holder = box.current!;
    const canvas = document.createElement('canvas');
    canvas.style.display = 'block';
    holder.append(canvas);
    const root: ReconcilerRoot<HTMLCanvasElement> = createRoot(canvas);
    let asked = Promise.resolve();
    const fit = (): void => {
      const { width, height } = holder.getBoundingClientRect();
      if (width === 0 || height === 0) return;
      asked = asked.then(async () => {
        await root.configure({
          frameloop: 'demand',
          dpr: 1,
          size: { width, height, top: 0, left: 0 },
          gl: { antialias: false, powerPreference: 'high-performance' },
          camera: { fov: 36 },
        });
        root.render(<Stage />);
      });
    };
    const observer = new ResizeObserver(fit);
    observer.observe(holder);
    return () => {
      observer.disconnect();
      void asked.then(() => {
        root.unmount();
        canvas.remove();
      });
    };
  }, []);

  return <Box ref={box} sx={{ position: 'absolute', inset: 0 }} />;
}
