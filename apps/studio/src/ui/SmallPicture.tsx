'use client';

import Box from '@mui/material/Box';

/** A small picture; one of several moments plays while it is pointed at, and else shows how it ends. */
export function SmallPicture({ src, moments, moving }: { src: string; moments: number; moving: boolean }) {
  return (
    <Box
      aria-hidden
      style={{ backgroundImage: `url(${src})`, backgroundSize: `${100 * moments}% 100%` }}
      sx={{
        width: '100%',
        height: '100%',
        backgroundPosition: '100% 0',
        '@keyframes moments': { from: { backgroundPosition: '0% 0' }, to: { backgroundPosition: '100% 0' } },
        animation: moving && moments > 1 ? `moments 1.8s steps(${moments}, jump-none) infinite` : 'none',
        '@media (prefers-reduced-motion: reduce)': { animation: 'none' },
      }}
    />
  );
}
