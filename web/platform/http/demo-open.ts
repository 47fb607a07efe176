import { config } from '~/server/platform/config';

/**
 * Whether an address leads to the machine it is opened on.
 *
 * @example isLoopback('http://localhost:4310') // true
 * @example isLoopback('https://margin.school.example') // false
 */
export function isLoopback(address: string): boolean {
  const { hostname } = new URL(address);
  return hostname === 'localhost' || hostname === '[::1]' || /^127(\.\d{1,3}){3}$/.test(hostname);
}

/** The demo’s password and cards are known to everyone: it is for this machine, unless somebody has said that it is for others too. */
export const demoIsOpen = config.DEMO === '1' || isLoopback(config.PUBLIC_URL);
