import { fileURLToPath } from 'node:url';
import type { NextConfig } from 'next';

const config: NextConfig = {
  transpilePackages: ['@uvrex/core', '@uvrex/formats', '@uvrex/examples'],
  turbopack: { root: fileURLToPath(new URL('../..', import.meta.url)) },
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
};

export default config;
