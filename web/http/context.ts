import { createContext } from 'react-router';

/** The nonce that this answer's inline scripts must carry. */
export const nonceContext = createContext<string>('');

/** The address a request came from, for rate limits. */
export const addressContext = createContext<string>('unknown');
