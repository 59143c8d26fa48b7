import type { NextConfig } from 'next';

const config: NextConfig = {
  // Each run (demo, test) builds into a folder of its own, so that they do not disturb each other.
  distDir: process.env.NEST_BUILD_DIR ?? '.next',
  typescript: { ignoreBuildErrors: true, tsconfigPath: process.env.NEST_TSCONFIG ?? 'tsconfig.json' },
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: [
    '@node-rs/argon2',
    'pg',
    'rate-limiter-flexible',
    'nodemailer',
    'pino',
    'sharp',
    'pdfkit',
  ],
  // One more than the server itself lets through, so that there is one answer to what is too large.
  experimental: { serverActions: { bodySizeLimit: '1100kb' } },
  devIndicators: false,
};

export default config;
