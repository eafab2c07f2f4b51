import type { NextConfig } from 'next';
import { API_HEADERS } from './src/server/api-headers';

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: ['pg', '@node-rs/argon2', 'pino', '@react-pdf/renderer'],
  // the title comes with the page, never after it: a page without one is announced as nothing
  htmlLimitedBots: /.*/,
  outputFileTracingRoot: import.meta.dirname,
  headers: () =>
    Promise.resolve([
      {
        source: '/api/:path*',
        headers: Object.entries(API_HEADERS).map(([key, value]) => ({ key, value })),
      },
    ]),
  // types are looked at once, by ./check: a start need not wait for it
  typescript: { ignoreBuildErrors: true },
  turbopack: { root: import.meta.dirname },
  ...(process.env.VAST_DIST ? { distDir: process.env.VAST_DIST } : {}),
};
export default config;
