import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { batchesOf } from '~/server/documents/batches';
import { database } from '~/server/platform/db/current';
import type { Actor, School } from '~/server/school/school';
import { batchListWords } from './words';

/** The files for several students that somebody has asked for, as a list shows them. */
export async function batchesShown(
  actor: Actor,
  { school, discreet }: { school: Pick<School, 'timeZone'>; discreet: boolean },
) {
  const batches = await batchesOf(database(), actor);
  return batches.map(({ madeAt, ...batch }) => {
    const { on, time } = wallTime(madeAt, school.timeZone);
    const leftOut = discreet ? batch.leftOut.map(() => batchListWords.aStudent) : batch.leftOut;
    // One student alone is what the file is called by.
    const label = discreet && batch.of === 1 ? batchListWords.oneStudent : batch.label;
    return { ...batch, label, leftOut, at: `${shortDate(on)}, ${time}` };
  });
}
export type ShownBatch = Awaited<ReturnType<typeof batchesShown>>[number];
