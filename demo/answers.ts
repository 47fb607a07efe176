import { wallTime } from '~/core/calendar/zone';
import { carefulRules } from '~/core/sharing/visibility-rule';
import type { Database } from '~/server/platform/db/database';
import { type Speaker, sayComment } from '~/server/sharing/comments';
import { makeShareLink } from '~/server/sharing/share-links';
import { saveVisibilityRules } from '~/server/sharing/visibility';
import { SEED } from './goal-rows';
import { randomFrom } from './random';
import { timeZone } from './school';

/** What Ansel’s family and Ansel say of his entries, what the team answers, and who is shown what of him. */
export async function answerSomeEntries(db: Database, now: Date): Promise<void> {
  const random = randomFrom(SEED - 6);
  const wall = wallTime(now, timeZone);
  const ansel = await db('students').where({ first_name: 'Ansel' }).first('id', 'school_id');
  const manager = await db('people').where({ demo_order: 1 }).first('id');
  const family = await db('share_links').where({ student_id: ansel!.id, kind: 'family' }).first('id', 'ends_on');
  const actor = { personId: manager!.id, schoolId: ansel!.school_id, today: wall.on };
  const own = { id: random.uuid(), readerName: 'Ansel', kind: 'student' as const, endsOn: family!.ends_on };
  await makeShareLink(db, actor, ansel!.id, own, now);
  const withNotes = { ...carefulRules.family, shows: [...carefulRules.family.shows, 'note' as const] };
  await saveVisibilityRules(db, actor, ansel!.id, { ...carefulRules, family: withNotes }, now);

  const say = (speaker: Speaker, entryId: string | null, text: string) =>
    sayComment(db, ansel!.id, speaker, { id: random.uuid(), entryId, text }, { wall, now, mayRead: async () => true });
  const newestOf = async (number: string) => {
    const entry = await db('entries as o')
      .join('goals as g', 'g.id', 'o.goal_id')
      .where({ 'g.student_id': ansel!.id, 'g.number': number, 'o.withdrawn': false })
      .whereNotNull('o.data')
      .orderBy('o.observed_on', 'desc')
      .first('o.id');
    return entry.id as string;
  };
  const asked = await newestOf('2a');
  await say({ kind: 'family', linkId: family!.id }, asked, 'He asked for the screwdriver at home too, all by himself.');
  await say({ kind: 'team', personId: manager!.id }, asked, 'That is just what we hope for. Thank you for telling us.');
  await say({ kind: 'student', linkId: own.id }, await newestOf('1'), 'The long edge is easier when I count.');
  await say({ kind: 'student', linkId: own.id }, null, 'I want to build the bird house next.');
}
