'use client';

import Box from '@mui/material/Box';
import { useEffect, useState } from 'react';
import { create } from 'zustand';
import { useProjection } from '@/state/director/projection';

/** The small picture that was kept of the scene when it was last looked at; null where there is none. */
export const useFirstPicture = create<{ picture: Blob | null }>(() => ({ picture: null }));

/**
 * Placeholder for the canvas until the first frame has been drawn: the scene's thumbnail. It was cropped about the middle of the canvas,
 * so that it lies over it at the same scale.
 */
export function FirstPicture() {
  const picture = useFirstPicture((state) => state.picture);
  const drawn = useProjection((state) => state.drawn > 0);
  const [src, setSrc] = useState<string | null>(null);
  useEffect(() => {
    if (!picture) return;
    const url = URL.createObjectURL(picture);
    setSrc(url);
    return () => {
      setSrc(null);
      URL.revokeObjectURL(url);
    };
  }, [picture]);
  // Once the scene has been drawn the kept picture is out of date.
  useEffect(() => {
    if (drawn) useFirstPicture.setState({ picture: null });
  }, [drawn]);
  if (!src || drawn) return null;
  return (
    <Box
      component="img"
      src={src}
      alt="The scene as it was last seen"
      sx={{
        position: 'absolute',
        inset: 0,
        width: '100%',
        height: '100%',
        objectFit: 'contain',
        pointerEvents: 'none',
      }}
    />
  );
}
