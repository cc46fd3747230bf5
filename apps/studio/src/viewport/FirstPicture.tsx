'use client';

import Box from '@mui/material/Box';
import { useEffect, useState } from 'react';
import { create } from 'zustand';
import { useProjection } from '@/state/director/projection';

/** The small picture that was kept of the scene when it was last looked at; null where there is none. */
export const useFirstPicture = create<{ picture: Blob | null }>(() => ({ picture: null }));

/**
 * The kept picture in the place of the canvas until the first one has been drawn. It was cut from the middle of the canvas, and lies over
 * it in the same size and place.
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
  // A stage that is made anew, as after a change of place, has no older picture to show.
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
