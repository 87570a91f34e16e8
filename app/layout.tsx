import type { Metadata, Viewport } from 'next';
import type { ReactNode } from 'react';
import './globals.css';

export const metadata: Metadata = {
  title: 'Fickle Ribbon',
  appleWebApp: { capable: true, title: 'Ribbon', statusBarStyle: 'black' },
  icons: { apple: '/icon-192.png' },
  description: 'The bench for beat-timed trick shots: plan, film, match, build, prove and hand over.',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1, viewportFit: 'cover' };

export default function Layout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <body>{children}</body>
    </html>
  );
}
