import { z } from 'zod';

/** What can be carried in from a file. */
export const importKinds = ['roster', 'goals', 'entries', 'incidents'] as const;
export type ImportKindName = (typeof importKinds)[number];

/** A file that is handed over, beside its bytes. */
export const uploadInput = z.object({
  id: z.uuid(),
  kind: z.enum(importKinds, { error: 'Choose what is in it.' }),
});
export type UploadInput = z.infer<typeof uploadInput>;
