import puppeteer, { type Browser } from 'puppeteer-core';

/** Debian's Chromium without a window and without a word to the network, with a profile of its own in a folder. */
export const startBrowser = (profile: string, further: readonly string[] = []): Promise<Browser> =>
  puppeteer.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
    userDataDir: profile,
    // The certificate of the server is its own.
    acceptInsecureCerts: true,
    defaultViewport: { width: 1280, height: 800 },
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--no-first-run',
      '--disable-renderer-backgrounding',
      ...further,
    ],
  });
