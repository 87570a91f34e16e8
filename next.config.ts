import type { NextConfig } from 'next';

/** A static shell: the pages are files, everything else happens in the browser. */
const config: NextConfig = {
  output: 'export',
  reactStrictMode: true,
  generateBuildId: () => 'ribbon',
  images: { unoptimized: true },
};
export default config;
