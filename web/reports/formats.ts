/** The files that a report can be taken away as. */
export const formats = ['pdf', 'docx', 'csv'] as const;
export type Format = (typeof formats)[number];
