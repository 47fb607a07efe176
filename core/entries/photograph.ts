import { z } from 'zod';

/** A photograph as a device made it smaller: the longest that is sent, in characters of base64. */
const LONGEST_PHOTOGRAPH = 4_000_000;
/** Of all photographs that one save brings along, in characters of base64: it has to fit through one door. */
export const LONGEST_TOGETHER = 4_500_000;
/** All that one save sends: its photographs, and what was observed. */
export const LARGEST_WITH_PHOTOGRAPHS = 5 * 1024 * 1024;
/** So many are taken while something is recorded; more can be added on the entry's own page. */
export const MOST_WHILE_RECORDING = 3;

/** A photograph's content as base64. */
export const photographContent = z
  .string()
  .max(LONGEST_PHOTOGRAPH, { error: 'This photograph is too large.' })
  .regex(/^[A-Za-z0-9+/]*={0,2}$/, { error: 'This photograph cannot be read.' });

/** A photograph that comes along with an entry. It carries its own id: sent twice, it is there once. */
export const photographInput = z.object({
  id: z.uuid({ error: 'This is not a known item.' }),
  content: photographContent,
});
export type PhotographInput = z.infer<typeof photographInput>;

/** The photographs that come along with one entry; none where nothing is said. */
export const photographsField = z
  .array(photographInput)
  .max(MOST_WHILE_RECORDING, { error: `At most ${MOST_WHILE_RECORDING} photographs come along with an entry.` })
  .optional();
