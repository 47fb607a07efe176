import { create } from 'content-disposition';

/** A file to be kept, under a name of any script (RFC 6266); programs that know only Latin letters get those. */
export const contentDisposition = (name: string): string => create(name);
