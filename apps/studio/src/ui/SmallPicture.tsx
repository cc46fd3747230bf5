'use client';

import Box from '@mui/material/Box';

/** Moments of something, side by side. */
export interface Strip {
  src: string;
  moments: number;
  /** The moment that is shown at rest, counted from 0; the last where it is left out. */
  rest?: number;
}

/** A small picture; one of several moments plays while it is pointed at. */
export function SmallPicture({ src, moments, rest = moments - 1, moving }: Strip & { moving: boolean }) {
  return (
    <Box
      aria-hidden
      style={{
        backgroundImage: `url(${src})`,
        backgroundSize: `${100 * moments}% 100%`,
        backgroundPosition: `${moments > 1 ? (100 * rest) / (moments - 1) : 100}% 0`,
      }}
      sx={{
        width: '100%',
        height: '100%',
        '@keyframes moments': { from: { backgroundPosition: '0% 0' }, to: { backgroundPosition: '100% 0' } },
        animation: moving && moments > 1 ? `moments 1.8s steps(${moments}, jump-none) infinite` : 'none',
        '@media (prefers-reduced-motion: reduce)': { animation: 'none' },
      }}
    />
  );
}
