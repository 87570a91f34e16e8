import { chromium, type Browser } from 'playwright-core';

/** Debian's Chromium, the one browser that this project is tested in. @param more further switches of it */
export function openBrowser(...more: string[]): Promise<Browser> {
  return chromium.launch({
    executablePath: '/usr/bin/chromium',
    headless: true,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--autoplay-policy=no-user-gesture-required',
      ...more,
    ],
  });
}
