import { existsSync } from 'node:fs';
import { browsers } from '../../scripts/setup/browsers.mjs';

/** How Debian's Chromium is started: as root it cannot have its sandbox, and it has nobody to call. */
export const chromium = {
  executablePath: browsers.find((path) => existsSync(path)) ?? '',
  args: [
    ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};
