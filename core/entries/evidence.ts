/** A photograph or a file beside an entry. */
export interface Evidence {
  id: string;
  entryId: string;
  name: string;
  isPicture: boolean;
  width: number | null;
  height: number | null;
  bytes: number;
}

/** The largest file that is taken. */
export const LARGEST_FILE = 15 * 1024 * 1024;
/** More than this at one entry is an album. */
export const MOST_AT_ENTRY = 8;

export const tooLargeWords = 'This file is larger than 15 MB. Make it smaller, or take the picture again with less.';

/**
 * The size of a file for reading.
 *
 * @param bytes  0 or more
 * @example fileSize(2_400_000) // '2.3 MB'
 */
export function fileSize(bytes: number): string {
  if (bytes < 1024) return `${bytes} B`;
  if (bytes < 1024 * 1024) return `${Math.round(bytes / 1024)} kB`;
  return `${(bytes / 1024 / 1024).toFixed(1)} MB`;
}
