'use client';

import Box from '@mui/material/Box';
import { useEffect, useState } from 'react';
import { useFirstPicture } from '@/state/director/firstPicture';
import { useProjection } from '@/state/director/projection';

const WHOLE = { position: 'absolute', inset: 0, width: '100%', height: '100%' } as const;

/**
 * Placeholder for the canvas until the first frame has been drawn: the scene's thumbnail. It was cropped about the middle of the canvas,
 * so that it lies over it at the same scale; beside it, it goes on blurred.
 */
export function FirstPicture({ picture }: { picture: Blob }) {
  const drawn = useProjection((state) => state.drawn > 0);
  const [src, setSrc] = useState<string | null>(null);
  useEffect(() => {
    const url = URL.createObjectURL(picture);
    setSrc(url);
    return () => URL.revokeObjectURL(url);
  }, [picture]);
  // Once the scene has been drawn the thumbnail is out of date.
  useEffect(() => {
    if (drawn) useFirstPicture.setState({ picture: null });
  }, [drawn]);
  if (!src || drawn) return null;
  return (
    <Box sx={{ ...WHOLE, overflow: 'hidden', pointerEvents: 'none' }}>
      <Box component="img" src={src} alt="" sx={{ ...WHOLE, objectFit: 'cover', filter: 'blur(24px)', scale: '1.1' }} />
      <Box component="img" src={src} alt="The scene as it was last seen" sx={{ ...WHOLE, objectFit: 'contain' }} />
    </Box>
  );
}
