import { chromium, type Browser, type BrowserContext } from 'playwright-core';

/** Debian's Chromium, the one browser that this project is tested in. @param more further switches of it */
const launch = (...more: string[]) => ({
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

/** A browser whose contexts keep what pages store in memory, as private windows do. @param more further switches of it */
export const openBrowser = (...more: string[]): Promise<Browser> => chromium.launch(launch(...more));

/** A browser that keeps what pages store on disk, as people have it. @param folder in which it does */
export const openProfile = (folder: string): Promise<BrowserContext> =>
  chromium.launchPersistentContext(folder, { ...launch(), serviceWorkers: 'block', acceptDownloads: true });
