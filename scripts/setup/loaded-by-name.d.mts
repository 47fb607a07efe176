/** Packages that are not built into one file. */
export const loadedByName: string[];
