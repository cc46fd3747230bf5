import type { Metadata, Viewport } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import '@fontsource-variable/figtree/wght.css';
import '@fontsource-variable/red-hat-mono/wght.css';
import '@fontsource-variable/bricolage-grotesque/wght.css';
import { Shell } from '@/ui/Shell';

export const metadata: Metadata = {
  title: 'Uvrex',
  description: 'Growth in 3D: curves that grow, skins swept along them, geometry revealed over time.',
};

export const viewport: Viewport = { themeColor: '#10191d' };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en">
      <body>
        <AppRouterCacheProvider options={{ key: 'mui', nonce, enableCssLayer: true }}>
          <Shell>{children}</Shell>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
