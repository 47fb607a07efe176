import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { everything } from '~/core/sharing/visibility-rule';
import { freshDatabase } from '~/tests/database/fresh';
import { accessTo, actorOf, now, type SmallSchool, smallSchool, today, wall } from '~/tests/database/small-school';
import { recordSession } from '../entries/record';
import { goalsOf } from '../goals/goals';
import { individualReport } from '../individual-report/individual-report';
import { Conflict, NotFound } from '../platform/failures';
import { followUpsOf } from '../rules/follow-ups';
import { savePlan } from '../students/plan';
import { decideAmendment } from './amendments';
import { hideComment, sayComment } from './comments';
import { makeShareLink } from './share-links';

const fresh = freshDatabase();
let school: SmallSchool;
let entryId: string;
const links = { family: randomUUID(), specialist: randomUUID() };

beforeAll(async () => {
  school = await smallSchool(fresh.db);
  for (const kind of ['family', 'specialist'] as const) {
    const link = { id: links[kind], readerName: kind, kind, endsOn: '2027-06-11' };
    await makeShareLink(fresh.db, actorOf(school.manager), school.student, link, now);
  }
  entryId = randomUUID();
  const outcome = { data: { trials: ['independent', 'incorrect'] }, reason: null };
  const session = { on: today, time: '09:00', observerId: school.manager, locationId: null };
  const entries = [{ id: entryId, goalId: school.goal, outcome, note: '' }];
  await recordSession(fresh.db, actorOf(school.manager), school.student, { ...session, entries }, { wall, now });
});

const mayRead = () => Promise.resolve(true);
const say = async (by: 'family' | 'specialist', kind: 'comment' | 'statement' | 'amendment', text: string) => {
  const id = randomUUID();
  const speaker = { kind: by, linkId: links[by] };
  const input = { id, entryId, kind, text };
  await sayComment(fresh.db, school.student, speaker, input, { wall, now, mayRead });
  // Sent again, it is said once, and once there is something to be done.
  await sayComment(fresh.db, school.student, speaker, input, { wall, now, mayRead });
  return id;
};
const threadFor = async (kind: 'team' | 'family' | 'specialist') => {
  const reader = { kind, linkId: kind === 'team' ? null : links[kind], shows: everything, discreet: false };
  const goals = await goalsOf(fresh.db, [school.student]);
  const wanted = { only: null, find: '', page: 'all' as const, day: null, oldestFirst: false };
  const { threads } = await individualReport(fresh.db, school.student, goals, reader, wanted);
  return (threads[entryId] ?? []).map(({ kind: said, text }) => [said, text]);
};
const followUps = () => followUpsOf(fresh.db, [accessTo(school.student)]);

describe('what a family contests', () => {
  it('is stated beside it, for every reader, and is not taken out of sight', async () => {
    const id = await say('family', 'statement', 'At home it is otherwise.');
    await say('family', 'comment', 'Only for the team.');
    expect(await threadFor('specialist')).toEqual([['statement', 'At home it is otherwise.']]);
    expect(await threadFor('team')).toHaveLength(2);
    const hiding = { id, reason: 'It looks bad.' };
    await expect(hideComment(fresh.db, actorOf(school.manager), school.student, hiding, now)).rejects.toThrow(NotFound);
    // Not even past us.
    await expect(
      fresh.db('comments').where({ id }).update({ hidden_at: now, hidden_by: school.manager, hidden_reason: 'x' }),
    ).rejects.toThrow(/comments_in_sight/);
    expect(await followUps()).toEqual([]);
  });

  it('is asked to be amended: the case manager has it to do, and decides once, with the reason', async () => {
    const request = await say('family', 'amendment', 'It was two of three.');
    const [todo] = await followUps();
    // Ten school days after Tuesday, November 24, with two weekends between.
    expect(todo).toMatchObject({ forPerson: school.manager, entryId, isDone: false, dueOn: '2026-12-08' });
    expect(await followUps()).toHaveLength(1);
    expect(await threadFor('specialist')).toHaveLength(1);

    const decision = {
      id: randomUUID(),
      answers: request,
      outcome: 'refused' as const,
      text: 'The film shows one of two.',
    };
    const decide = (person: string, changes = {}) =>
      decideAmendment(fresh.db, actorOf(person), school.student, { ...decision, ...changes }, { wall, now });
    await expect(decide(school.aide)).rejects.toThrow(NotFound);
    await expect(decide(school.manager, { answers: randomUUID() })).rejects.toThrow(NotFound);
    await decide(school.manager);
    await decide(school.manager);
    await expect(decide(school.manager, { id: randomUUID() })).rejects.toThrow(Conflict);
    expect((await followUps()).map(({ isDone }) => isDone)).toEqual([true]);
    expect((await threadFor('family')).slice(-2)).toEqual([
      ['amendment', 'It was two of three.'],
      ['decision', 'The film shows one of two.'],
    ]);
    expect(await threadFor('specialist')).toHaveLength(1);
  });

  it('is said by a family only, and where a thread is full too', async () => {
    await expect(say('specialist', 'statement', 'x')).rejects.toThrow(/reading only/);
    for (let i = 0; i < 7; i++) await say('family', 'comment', `More ${i}`);
    for (let i = 0; i < 4; i++) await say('family', 'statement', `Also ${i}`);
    await expect(say('family', 'comment', 'One too many')).rejects.toThrow();
    await say('family', 'statement', 'The last word.');
    expect((await threadFor('specialist')).at(-1)).toEqual(['statement', 'The last word.']);
  });
});

describe('what is stated of an issued report', () => {
  it('is taken only from whoever has that report before them, and of it alone', async () => {
    const plan = {
      startsOn: '2026-09-08',
      endsOn: '2027-06-11',
      periods: [{ label: 'Quarter 1', endsOn: '2026-12-04' }],
    };
    await savePlan(fresh.db, actorOf(school.manager), school.student, plan, { newId: randomUUID(), now });
    const period = await fresh.db('reporting_periods').first('id');
    const reportId = randomUUID();
    const content = JSON.stringify({ goals: [] });
    await fresh.db('issued_reports').insert({
      ...{ id: reportId, student_id: school.student, number: 1, period_id: period!.id, period_label: 'Quarter 1' },
      period_from: '2026-09-08',
      ...{ period_to: '2026-12-04', content, readers: [], issued_by: school.manager, issued_at: now },
    });
    const speaker = { kind: 'family' as const, linkId: links.family };
    const state = (openReport: string | null, changes = {}) => {
      const input = { id: randomUUID(), entryId: null, reportId, kind: 'statement' as const, text: 'x', ...changes };
      return sayComment(fresh.db, school.student, speaker, input, { wall, now, mayRead, openReport });
    };
    await expect(state(null)).rejects.toThrow(NotFound);
    await expect(state(randomUUID())).rejects.toThrow(NotFound);
    await expect(state(reportId, { kind: 'comment' })).rejects.toThrow(NotFound);
    await expect(state(reportId, { entryId })).rejects.toThrow(NotFound);
    await state(reportId);
    expect(await fresh.db('comments').where({ report_id: reportId })).toHaveLength(1);
  });
});
