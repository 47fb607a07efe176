import { existsSync } from 'node:fs';
import { ensureDebianPackage } from './packages.mjs';

/** Debian's Chromium, as the tests may drive it: without a window it needs a quarter less of the machine. */
export const browsers = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];

/**
 * Installs the browser when none is there.
 *
 * @param {string} use  what it is for, in words
 */
export const ensureBrowser = (use) =>
  ensureDebianPackage('chromium-headless-shell', () => browsers.some((path) => existsSync(path)), `Chromium, ${use},`);
