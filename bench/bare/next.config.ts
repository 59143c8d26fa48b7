import type { NextConfig } from 'next';

const config: NextConfig = {
  distDir: process.env.NEST_BUILD_DIR ?? '.next',
  typescript: { ignoreBuildErrors: true, tsconfigPath: process.env.NEST_TSCONFIG ?? 'tsconfig.json' },
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: ['pg'],
};

export default config;
