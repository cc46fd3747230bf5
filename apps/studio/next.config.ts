import { fileURLToPath } from 'node:url';
import type { NextConfig } from 'next';

/** What static files may do: scripts, the engine's worker among them, reach nothing but where they come from. */
const STATIC = [
  { key: 'x-content-type-options', value: 'nosniff' },
  {
    key: 'content-security-policy',
    value: "default-src 'none'; script-src 'self'; connect-src 'self'; worker-src 'self'; frame-ancestors 'none'",
  },
];

const config: NextConfig = {
  transpilePackages: ['@uvrex/core', '@uvrex/formats', '@uvrex/examples'],
  turbopack: { root: fileURLToPath(new URL('../..', import.meta.url)) },
  // They are checked by themselves, with those of all packages (npm run types).
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  headers: () =>
    Promise.resolve([
      { source: '/_next/static/:path*', headers: STATIC },
      { source: '/:icon(favicon.*)', headers: STATIC },
    ]),
};

export default config;
