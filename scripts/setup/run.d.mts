export const serverFlags: string[];
