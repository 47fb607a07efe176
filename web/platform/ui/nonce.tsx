import { createContext, useContext } from 'react';

const NonceContext = createContext<string | undefined>(undefined);

/** Hands the answer's nonce to what writes scripts. In the browser there is none: its scripts have run. */
export const Nonce = NonceContext;

export const useNonce = () => useContext(NonceContext);
