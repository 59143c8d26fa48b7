import { existsSync } from 'node:fs';

/** Chromium without a window to draw: a fifth of the work for each page that is opened. The whole browser will do as well. */
const SHELL = '/usr/bin/chromium-headless-shell';

/** Debian's Chromium, as this project starts it: in a sandbox already, with no calls home. */
export const CHROMIUM = {
  executablePath: existsSync(SHELL) ? SHELL : '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};
