'use client';

import Box from '@mui/material/Box';
import dynamic from 'next/dynamic';
import { useEffect, useRef, useState } from 'react';
import { useFirstPicture } from '@/state/director/firstPicture';
import { startChoosing } from './choose';
import { Stage } from './Stage';

const FirstPicture = dynamic(() => import('./FirstPicture').then((module) => module.FirstPicture), { ssr: false });

/** Holds the stage's canvas, and keeps it as large as its place. */
export function Surface() {
  const box = useRef<HTMLDivElement>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const kept = useFirstPicture((state) => state.picture);

  useEffect(() => {
    const holder = box.current!;
    let stage: Stage;
    try {
      stage = new Stage();
    } catch {
      setTrouble(
        'This browser draws no 3D (WebGL 2). Switch its hardware acceleration on, or use another browser. The scene is kept, and can be exported as a file.',
      );
      return;
    }
    stage.onLost = (lost) =>
      setTrouble(lost ? 'The graphics were lost: the picture comes back when the browser gives them back.' : null);
    holder.append(stage.canvas);
    const stopChoosing = startChoosing(stage.canvas);
    const observer = new ResizeObserver(() => {
      const { width, height } = holder.getBoundingClientRect();
      stage.resize(width, height);
    });
    observer.observe(holder);
    return () => {
      observer.disconnect();
      stopChoosing();
      stage.dispose();
    };
  }, []);

  return (
    <>
      <Box ref={box} sx={{ position: 'absolute', inset: 0 }} />
      {kept && !trouble && <FirstPicture picture={kept} />}
      {trouble && (
        <Box
          role="alert"
          sx={{ position: 'absolute', inset: 0, display: 'grid', placeContent: 'center', p: 6, textAlign: 'center' }}
        >
          {trouble}
        </Box>
      )}
    </>
  );
}
