import { config } from '~/server/platform/config';
import { isLoopback } from './local-path';

/** The demo’s password and cards are known to everyone: it is for this machine, unless somebody has said that it is for others too. */
export const demoIsOpen = config.DEMO === '1' || isLoopback(config.PUBLIC_URL);
