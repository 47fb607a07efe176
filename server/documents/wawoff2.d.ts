/** Says no types of its own. */
declare module 'wawoff2' {
  /**
   * A font as any program reads it (OpenType), from the form in which it is sent to browsers (WOFF2).
   *
   * @param font  the bytes of a WOFF2 file
   * @throws where they are none
   */
  export function decompress(font: Uint8Array): Promise<Uint8Array>;
}
