import type { NextConfig } from 'next';

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: ['pg', '@node-rs/argon2', 'pino', '@react-pdf/renderer'],
  outputFileTracingRoot: import.meta.dirname,
  // an organisation comes back as one file; each route has its own, smaller limit
  experimental: { proxyClientMaxBodySize: '600mb' },
  turbopack: { root: import.meta.dirname },
  ...(process.env.VAST_DIST ? { distDir: process.env.VAST_DIST } : {}),
};
export default config;
