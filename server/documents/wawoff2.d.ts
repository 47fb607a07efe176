declare module 'wawoff2' {
  /** A font as OpenType, from WOFF2. */
  export function decompress(font: Uint8Array): Promise<Uint8Array>;
}
