/** What the documents of a school are printed on. */
export const pageSizes = ['letter', 'a4'] as const;
export type PageSize = (typeof pageSizes)[number];

/**
 * Width and height in points of 1/72 inch, rounded: 8.5 by 11 inches (ANSI/ASME Y14.1, size A), and 210 by 297 millimeters (ISO 216).
 */
export const pageDimensions: Record<PageSize, { width: number; height: number }> = {
  letter: { width: 612, height: 792 },
  a4: { width: 595, height: 842 },
};
