import type { NextConfig } from 'next';

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: ['pg', '@node-rs/argon2', 'pino', '@react-pdf/renderer'],
  // the title comes with the page, never after it: a page without one is announced as nothing
  htmlLimitedBots: /.*/,
  outputFileTracingRoot: import.meta.dirname,
  // what the api answers is no page: nothing of it runs, and nobody frames it
  headers: () =>
    Promise.resolve([
      {
        source: '/api/:path*',
        headers: [
          {
            key: 'content-security-policy',
            value:
              "default-src 'self'; script-src 'none'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'",
          },
          { key: 'x-content-type-options', value: 'nosniff' },
          { key: 'referrer-policy', value: 'same-origin' },
        ],
      },
    ]),
  // types are looked at once, by ./check: a start need not wait for it
  typescript: { ignoreBuildErrors: true },
  turbopack: { root: import.meta.dirname },
  ...(process.env.VAST_DIST ? { distDir: process.env.VAST_DIST } : {}),
};
export default config;
