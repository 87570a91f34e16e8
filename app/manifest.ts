import type { MetadataRoute } from 'next';

export const dynamic = 'force-static';

/** What a phone needs to put the bench among its applications. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    id: '/',
    name: 'Fickle Ribbon',
    short_name: 'Ribbon',
    description: 'The bench for beat-timed trick shots: plan, film, match, build, prove and hand over.',
    start_url: '/?station=shoot',
    scope: '/',
    display: 'standalone',
    background_color: '#15182b',
    theme_color: '#15182b',
    icons: [
      { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
      { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' },
    ],
  };
}
