import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import type { BehaviorRow } from '~/core/entries/incidents/choice';
import type { IncidentCorrection } from '~/core/entries/incidents/incident-input';
import { emptied } from '~/tests/database/emptied';
import { choices, follow, incidentInputOf, moment } from '~/tests/database/followed';
import { freshDatabase } from '~/tests/database/fresh';
import {
  accessTo,
  actorOf,
  makeAdmin,
  now,
  type SmallSchool,
  schoolId,
  smallSchool,
  today,
} from '~/tests/database/small-school';
import { choicesOf, earlierDefinitions } from '../entries/incidents/choices';
import { studentsWithChoices } from '../entries/incidents/copy-choices';
import {
  correctCount,
  countOf,
  countPairs,
  countsOf,
  historyOfCount,
  recordCounts,
  withdrawCount,
} from '../entries/incidents/counts';
import { choicesInForm, mergeChoices, offerChoice, saveChoices } from '../entries/incidents/edit-choices';
import { historyOfIncident, incidentOf, minutesOfIncidents, newestIncidents } from '../entries/incidents/incidents';
import { correctIncident, endIncident, recordIncident, withdrawIncident } from '../entries/incidents/record-incident';
import { behaviorEntries, newestEntries } from '../individual-report/entries-said';
import { Conflict, Invalid, NotAllowed, NotFound } from '../platform/failures';
import { studentTabs } from '../students/students';
import { ownDayParts, plannedOn, saveOwnDayParts, timetablesOf } from '../students/timetable';
import { behaviorOf, incidentsAcross } from './behavior';
import { addPhase, phasesOf, removePhase } from './phases';

const fresh = freshDatabase();
let school: SmallSchool;
let followed: Awaited<ReturnType<typeof follow>>;
const manager = () => actorOf(school.manager);
const aide = () => actorOf(school.aide);
const record = (changes: Parameters<typeof incidentInputOf>[2] = {}, who = manager()) => {
  const input = incidentInputOf(school, [followed.id('Leaves')], changes);
  return recordIncident(fresh.db, who, school.student, input, moment).then(() => input);
};
const seen = () => behaviorOf(fresh.db, school.student, { discreet: false });
const fieldsOf = (failing: Promise<unknown>) =>
  failing.then(
    () => null,
    (error) => (error instanceof Invalid ? error.fields : error),
  );

beforeEach(async () => {
  await emptied(fresh.db);
  school = await smallSchool(fresh.db);
  followed = await follow(fresh.db, school);
});

describe('choices', () => {
  it('are the case manager’s to set up, begun from the school’s lists with the school’s places', async () => {
    await expect(choicesInForm(fresh.db, aide(), school.student, randomUUID)).rejects.toThrow(NotFound);
    await expect(saveChoices(fresh.db, actorOf(school.stranger), school.student, choices(school), now)).rejects.toThrow(
      NotFound,
    );
    await expect(saveChoices(fresh.db, manager(), null, choices(school), now)).rejects.toThrow(NotFound);
    await makeAdmin(fresh.db, school.manager);
    await saveChoices(fresh.db, manager(), null, { ...choices(school), behavior: [], location: [] }, now);
    const other = randomUUID();
    const names = { first_name: 'Ben', last_name: 'E', short_name: 'Ben E.', initials: 'BE', grade: '4' };
    await fresh.db('students').insert({ id: other, school_id: schoolId, ...names });
    await fresh
      .db('team_members')
      .insert({ student_id: other, person_id: school.manager, role: 'caseManager', from_date: '2026-09-01' });
    const { isNew, input } = await choicesInForm(fresh.db, manager(), other, randomUUID);
    expect([
      isNew,
      input.antecedent.map(({ name }) => name),
      input.location.map(({ locationId }) => locationId),
    ]).toEqual([true, ['Noise', 'Waiting'], [school.kitchen]]);
    expect(await choicesOf(fresh.db, accessTo(other))).toEqual([]);

    // From another student: what is not there by name, as choices of one’s own; from nobody whose goals one does not edit.
    const from = { studentId: school.student };
    const copied = await choicesInForm(fresh.db, manager(), other, randomUUID, from);
    expect(copied.input.behavior.map(({ name }) => name)).toEqual(followed.input.behavior.map(({ name }) => name));
    expect(copied.input.antecedent.filter(({ name }) => name === 'Noise')).toHaveLength(1);
    const theirs = new Set(followed.input.behavior.map(({ id }) => id));
    expect(copied.input.behavior.every(({ id }) => !theirs.has(id))).toBe(true);
    await saveChoices(fresh.db, manager(), other, copied.input, now);
    const again = await choicesInForm(fresh.db, manager(), other, randomUUID, from);
    expect([again.isNew, again.copied]).toEqual([false, 0]);
    await expect(choicesInForm(fresh.db, manager(), other, randomUUID, { studentId: randomUUID() })).rejects.toThrow(
      NotFound,
    );
    const offered = await studentsWithChoices(fresh.db, manager());
    expect(offered.map(({ id }) => id).sort()).toEqual([other, school.student].sort());
    await fresh.db('team_members').where({ student_id: other }).update({ until_date: '2026-09-02' });
    expect((await studentsWithChoices(fresh.db, manager())).map(({ id }) => id)).toEqual([school.student]);
  });

  it('keep what they were: reworded in old incidents too, taken away they are retired, a definition has its history', async () => {
    const { input } = followed;
    const incident = await record({ antecedents: [followed.id('Noise')] });
    const [leaves, shouts] = input.behavior;
    await saveChoices(
      fresh.db,
      manager(),
      school.student,
      {
        ...input,
        behavior: [
          { ...(shouts as BehaviorRow), name: 'Leaves' },
          { ...(leaves as BehaviorRow), name: 'Shouts', words: 'Louder than talk' },
        ],
        antecedent: input.antecedent.slice(1),
      },
      now,
    );
    const of = await seen();
    expect(of.incidents[0]).toMatchObject({ id: incident.id, behaviors: ['Shouts'], antecedents: ['Noise'] });
    expect(of.choices.find(({ name }) => name === 'Noise')?.state).toBe('retired');
    const earlier = await earlierDefinitions(fresh.db, school.student);
    expect(earlier.map(({ name, words }) => [name, words]).sort()).toEqual([
      ['Leaves', ''],
      ['Shouts', ''],
    ]);
    await offerChoice(fresh.db, manager(), school.student, followed.id('Noise'), now);
    expect((await seen()).choices.find(({ name }) => name === 'Noise')?.state).toBe('offered');
  });

  it('with a name that is there are questioned, or brought back instead', async () => {
    const { input } = followed;
    const without = { ...input, antecedent: input.antecedent.slice(1) };
    await saveChoices(fresh.db, manager(), school.student, without, now);
    const again = (name: string, isDifferent = false) =>
      fieldsOf(
        saveChoices(
          fresh.db,
          manager(),
          school.student,
          {
            ...without,
            antecedent: [
              ...without.antecedent,
              { id: randomUUID(), name, words: '', discreetWord: '', locationId: null, isDifferent },
            ],
          },
          now,
        ),
      );
    expect(await again('Noise')).toEqual({
      'antecedent[1].name': '“Noise” is there, retired. Bring that one back instead.',
    });
    expect(await again('noise')).toEqual({
      'antecedent[1].isDifferent': '“Noise” is there, retired. Do they mean different things?',
    });
    expect(await again('noise', true)).toBeNull();
  });

  it('cannot be those of somebody else, nor change their kind', async () => {
    const { input } = followed;
    const [noise] = input.antecedent;
    const moved = { ...input, antecedent: [], consequence: [noise as never] };
    await expect(saveChoices(fresh.db, manager(), school.student, moved, now)).rejects.toThrow(NotFound);
    await expect(
      mergeChoices(fresh.db, manager(), school.student, { from: randomUUID(), into: followed.id('Noise') }, now),
    ).rejects.toThrow(NotFound);
    expect(
      await fieldsOf(
        mergeChoices(
          fresh.db,
          manager(),
          school.student,
          { from: followed.id('A break'), into: followed.id('Noise') },
          now,
        ),
      ),
    ).toHaveProperty('into');
  });

  it('that mean the same become one: old incidents follow, and an incident counts it once', async () => {
    await record({ antecedents: [followed.id('Noise'), followed.id('Waiting')] });
    await record({ antecedents: [followed.id('Noise')] });
    const pair = { from: followed.id('Noise'), into: followed.id('Waiting') };
    await mergeChoices(fresh.db, manager(), school.student, pair, now);
    await mergeChoices(fresh.db, manager(), school.student, pair, now);
    expect((await seen()).incidents.map(({ antecedents }) => antecedents)).toEqual([['Waiting'], ['Waiting']]);
    expect(await fresh.db('incident_choices').pluck('option_id')).toContain(followed.id('Noise'));
    expect(await fresh.db('behavior_revisions').where({ option_id: followed.id('Noise') })).toHaveLength(1);
  });
});

describe('an ABC incident', () => {
  it('is recorded once however often it is sent, and refused where the same id says something else', async () => {
    const incident = await record({ others: [{ id: randomUUID(), kind: 'antecedent', name: 'A dog barked' }] });
    await recordIncident(fresh.db, manager(), school.student, incident, moment);
    expect(await newestIncidents(fresh.db, [school.student])).toHaveLength(1);
    expect(
      await fieldsOf(recordIncident(fresh.db, manager(), school.student, { ...incident, note: 'More' }, moment)),
    ).toHaveProperty('form');
    await expect(recordIncident(fresh.db, aide(), school.student, incident, moment)).rejects.toThrow(NotFound);
  });

  it('makes of what was typed a choice that is not offered; in another case or with spaces it is the one that is there', async () => {
    await record({ others: [{ id: randomUUID(), kind: 'antecedent', name: 'A dog  barked' }] });
    await record({ others: [{ id: randomUUID(), kind: 'antecedent', name: ' a DOG barked ' }] });
    await record({ others: [{ id: randomUUID(), kind: 'antecedent', name: 'noise' }] });
    const of = await seen();
    expect(of.incidents.map(({ antecedents }) => antecedents)).toEqual([['A dog barked'], ['A dog barked'], ['Noise']]);
    expect(of.choices.filter(({ state }) => state === 'other').map(({ name }) => name)).toEqual(['A dog barked']);
  });

  it('takes a choice that was retired meanwhile, a time outside of the day, and two of the same minute', async () => {
    await saveChoices(fresh.db, manager(), school.student, { ...followed.input, antecedent: [] }, now);
    await record({ antecedents: [followed.id('Noise')], time: '05:10' });
    await record({ antecedents: [followed.id('Noise')], time: '05:10' });
    const of = await seen();
    expect(of.incidents.map(({ time, antecedents }) => [time, antecedents])).toEqual([
      ['05:10', ['Noise']],
      ['05:10', ['Noise']],
    ]);
  });

  it('is refused ahead of time, in the hour that the clock change leaves out, by a stranger, with foreign choices', async () => {
    expect(await fieldsOf(record({ time: '18:00' }))).toHaveProperty('time');
    const spring = { ...moment, wall: { on: '2027-03-15', time: '10:00' }, now: new Date('2027-03-15T14:00:00Z') };
    const skipped = incidentInputOf(school, [followed.id('Leaves')], { on: '2027-03-14', time: '02:30' });
    expect(await fieldsOf(recordIncident(fresh.db, manager(), school.student, skipped, spring))).toEqual({
      time: 'The clocks went forward that day: there was no 02:30. Choose a time after it.',
    });
    const twice = incidentInputOf(school, [followed.id('Leaves')], { on: '2026-11-01', time: '01:30' });
    await recordIncident(fresh.db, manager(), school.student, twice, moment);
    await expect(record({}, actorOf(school.stranger))).rejects.toThrow(NotFound);
    expect(await fieldsOf(record({ observerId: school.stranger }))).toHaveProperty('observerId');
    expect(await fieldsOf(record({ besideId: school.manager }))).toHaveProperty('besideId');
    await expect(record({ antecedents: [followed.id('A break')] })).rejects.toThrow(NotFound);
    await expect(record({ behaviors: [randomUUID()] })).rejects.toThrow(NotFound);
  });

  it('is corrected with its history, by whom it is, and once; withdrawn it is in no figure', async () => {
    const { id, ...note } = await record({ seconds: 60 });
    const ids = { studentId: school.student, noteId: id };
    const correction: IncidentCorrection = { ...note, seconds: 90, version: 1, why: 'Read the watch again.' };
    await expect(correctIncident(fresh.db, aide(), ids, correction, moment)).rejects.toThrow(NotAllowed);
    await correctIncident(fresh.db, manager(), ids, correction, moment);
    await correctIncident(fresh.db, manager(), ids, correction, moment);
    await expect(correctIncident(fresh.db, manager(), ids, { ...correction, seconds: 30 }, moment)).rejects.toThrow(
      Conflict,
    );
    expect(await incidentOf(fresh.db, school.student, id)).toMatchObject({ seconds: 90, version: 2 });
    expect((await historyOfIncident(fresh.db, id)).map(({ seconds }) => seconds)).toEqual([60]);
    expect((await seen()).incidents.map(({ seconds }) => seconds)).toEqual([90]);
    expect(await behaviorEntries(fresh.db, [school.student], { discreet: false })).toMatchObject([
      { kind: 'incident', title: 'Leaves', sentence: 'Leaves. It lasted 1 min 30 s.', isCorrected: true },
    ]);
    await withdrawIncident(fresh.db, manager(), ids, { version: 2, why: 'Another student.' }, now);
    expect((await seen()).incidents).toEqual([]);
    expect(await behaviorEntries(fresh.db, [school.student], { discreet: false })).toEqual([]);
    await expect(fresh.db('entries').where({ id }).delete()).rejects.toThrow('not removed');
    await expect(incidentOf(fresh.db, school.student, randomUUID())).rejects.toThrow(NotFound);
  });

  it('that never ended has no length; anyone who may observe closes it, not before it began', async () => {
    const { id } = await record({ isGoing: true, time: '09:50' });
    const ids = { studentId: school.student, noteId: id };
    expect((await studentTabs(fresh.db, aide()))[0]?.going).toEqual([{ id, on: today, time: '09:50', version: 1 }]);
    expect((await seen()).incidents[0]?.seconds).toBeNull();
    const end = (changes: object, when = moment) =>
      endIncident(fresh.db, aide(), ids, { version: 1, time: null, seconds: null, ...changes }, when);
    expect(await fieldsOf(end({ time: '09:40' }))).toEqual({
      time: 'It began at 09:50: it cannot have ended before that.',
    });
    expect(await fieldsOf(end({ time: '11:00' }))).toEqual({ time: 'This lies in the future.' });
    const tomorrow = { ...moment, wall: { on: '2026-11-25', time: '09:00' } };
    expect(await fieldsOf(end({}, tomorrow))).toEqual({ time: 'It began on another day: say how long it lasted.' });
    await expect(
      endIncident(fresh.db, actorOf(school.stranger), ids, { version: 1, time: null, seconds: null }, moment),
    ).rejects.toThrow(NotFound);
    await end({});
    expect(await incidentOf(fresh.db, school.student, id)).toMatchObject({ isGoing: false, seconds: 600, version: 2 });
    await expect(end({ seconds: 60 })).rejects.toThrow(Conflict);
    expect((await studentTabs(fresh.db, aide()))[0]?.going).toEqual([]);
  });

  it('of a second observer counts in no figure, and stands in the report as that', async () => {
    await record({ observerId: school.aide, besideId: school.manager }, aide());
    await record();
    expect((await seen()).incidents).toHaveLength(1);
    const entries = await behaviorEntries(fresh.db, [school.student], { discreet: false });
    expect(entries.map(({ isSecond }) => isSecond).sort()).toEqual([false, true]);
    const newest = await newestEntries(fresh.db, [school.student], [], { limit: 1, discreet: false });
    expect(newest.map(({ id }) => id)).toEqual([entries[0]?.id]);
  });

  it('shows first letters only where the view is discreet', async () => {
    await record({ antecedents: [followed.id('Noise')], intensityId: followed.id('2') });
    const entries = await behaviorEntries(fresh.db, [school.student], { discreet: true });
    expect(JSON.stringify(entries)).not.toMatch(/Leaves|Noise|loud/);
    expect(entries[0]?.title).toBe('L');
    const [across] = await incidentsAcross(fresh.db, [school.student], { discreet: true });
    expect(across?.incidents[0]).toMatchObject({ behaviors: ['L'], antecedents: ['N'], intensity: 2 });
  });
});

describe('a count', () => {
  const count = (changes: object = {}) => ({
    ...{ id: randomUUID(), on: today, time: '09:00', observerId: school.manager, behaviorId: followed.id('Leaves') },
    ...{ part: 'Workshop', minutes: 60, count: 0, seconds: null, note: '', ...changes },
  });

  it('of none is a count and its time; sent twice it is one; corrected it keeps what it said', async () => {
    const [none, some] = [count(), count({ count: 3, minutes: 30 })];
    const both = { counts: [none, some] };
    await recordCounts(fresh.db, manager(), school.student, both, moment);
    await recordCounts(fresh.db, manager(), school.student, both, moment);
    const of = await seen();
    expect(of.watched.map(({ count, minutes }) => [count, minutes]).sort()).toEqual([
      [0, 60],
      [3, 30],
    ]);
    expect(of.since).toBe(today);
    const ids = { studentId: school.student, tallyId: some.id };
    const { id: _, ...rest } = some;
    await correctCount(fresh.db, manager(), ids, { ...rest, count: 4, version: 1, why: 'One more.' }, moment);
    expect(await countOf(fresh.db, school.student, some.id)).toMatchObject({ count: 4, version: 2 });
    expect((await historyOfCount(fresh.db, some.id)).map(({ count }) => count)).toEqual([3]);
    await withdrawCount(fresh.db, manager(), ids, { version: 2, why: 'Another student.' }, now);
    expect((await countsOf(fresh.db, [school.student])).map(({ id }) => id)).toEqual([none.id]);
  });

  it('is all or nothing, and only of a behavior of the student', async () => {
    const wrong = { counts: [count(), count({ behaviorId: followed.id('Noise') })] };
    await expect(recordCounts(fresh.db, manager(), school.student, wrong, moment)).rejects.toThrow(NotFound);
    expect(await countsOf(fresh.db, [school.student])).toEqual([]);
    await expect(
      recordCounts(fresh.db, actorOf(school.stranger), school.student, { counts: [count()] }, moment),
    ).rejects.toThrow(NotFound);
  });
});

describe('what changed, and the day', () => {
  it('phases are the case manager’s; one day begins one; taken away they are gone from the graph', async () => {
    const phase = { id: randomUUID(), behaviorId: null, label: 'Ear defenders', startsOn: '2026-10-20' };
    await expect(addPhase(fresh.db, aide(), school.student, phase)).rejects.toThrow(NotFound);
    await addPhase(fresh.db, manager(), school.student, phase);
    await addPhase(fresh.db, manager(), school.student, phase);
    expect(await phasesOf(fresh.db, school.student)).toHaveLength(1);
    const same = { ...phase, id: randomUUID(), behaviorId: followed.id('Leaves') };
    expect(await fieldsOf(addPhase(fresh.db, manager(), school.student, same))).toHaveProperty('startsOn');
    await removePhase(fresh.db, manager(), school.student, phase.id, now);
    expect(await phasesOf(fresh.db, school.student)).toEqual([]);
    await expect(removePhase(fresh.db, manager(), school.student, randomUUID(), now)).rejects.toThrow(NotFound);
  });

  it('a student’s own part of the day stands before the school’s, in the plan and in the hours', async () => {
    const schoolwide = {
      school_id: schoolId,
      weekday: 2,
      part: 'Lessons',
      starts_at: '09:00',
      ends_at: '11:00',
      location_id: school.kitchen,
    };
    await fresh.db('timetable_blocks').insert({ id: randomUUID(), ...schoolwide });
    const own = { part: 'Speech', from: '09:30', to: '10:00', weekdays: [2], locationId: null };
    await expect(saveOwnDayParts(fresh.db, aide(), school.student, { dayParts: [own] })).rejects.toThrow(NotFound);
    await saveOwnDayParts(fresh.db, manager(), school.student, { dayParts: [own] });
    expect((await plannedOn(fresh.db, [school.student], today)).map(({ part, from }) => [part, from])).toEqual([
      ['Lessons', '09:00'],
      ['Speech', '09:30'],
      ['Lessons', '10:00'],
    ]);
    expect(await ownDayParts(fresh.db, school.student)).toEqual([own]);
    expect((await timetablesOf(fresh.db, [school.student], 3)).get(school.student)).toEqual([]);
    // The incident’s location is told from the place the timetable has.
    expect((await seen()).timetable.map(({ location }) => location)).toEqual(['Kitchen', null, 'Kitchen']);
  });
});

describe('incidents that were read before', () => {
  it('are read anew as soon as anything is written, changed, withdrawn or called otherwise', async () => {
    const { id } = await record();
    expect((await seen()).incidents).toHaveLength(1);
    await record({ time: '09:40' });
    expect((await seen()).incidents.map(({ time }) => time)).toEqual(['09:30', '09:40']);
    const renamed = followed.input.behavior.map((row) => (row.name === 'Leaves' ? { ...row, name: 'Walks off' } : row));
    await saveChoices(fresh.db, manager(), school.student, { ...followed.input, behavior: renamed }, now);
    expect((await seen()).incidents[0]?.behaviors).toEqual(['Walks off']);
    await withdrawIncident(
      fresh.db,
      manager(),
      { studentId: school.student, noteId: id },
      { version: 1, why: 'Twice.' },
      now,
    );
    expect((await seen()).incidents.map(({ time }) => time)).toEqual(['09:40']);
    expect((await behaviorOf(fresh.db, school.student, { discreet: true })).incidents[0]?.behaviors).toEqual(['Wo']);
  });
});

describe('two observers', () => {
  const count = (observerId: string, changes: object = {}) => ({
    ...{ id: randomUUID(), on: today, time: '09:00', observerId, behaviorId: followed.id('Leaves') },
    ...{ part: null, minutes: 30, count: 2, seconds: null, note: '', ...changes },
  });

  it('of the same stretch are a pair of counts, of which the first counts', async () => {
    const [first, second] = [count(school.manager), count(school.aide, { count: 3 })];
    const later = count(school.aide, { time: '09:30' });
    await recordCounts(fresh.db, manager(), school.student, { counts: [first] }, moment);
    await recordCounts(fresh.db, aide(), school.student, { besideId: school.manager, counts: [second, later] }, moment);
    const pairs = countPairs(await countsOf(fresh.db, [school.student]));
    expect(pairs.map((pair) => [pair.first.id, pair.second.id])).toEqual([[first.id, second.id]]);
    expect((await seen()).watched.map(({ count }) => count)).toEqual([2]);
  });

  it('are told apart by who noted a behavior when, a merged one under the one that stands for it', async () => {
    await record({ time: '09:10' });
    await record({ time: '09:12', observerId: school.aide, besideId: school.manager }, aide());
    await record({ time: '09:20', behaviors: [followed.id('Shouts')] });
    await mergeChoices(
      fresh.db,
      manager(),
      school.student,
      { from: followed.id('Shouts'), into: followed.id('Leaves') },
      now,
    );
    const [incidents, { naming }] = [await newestIncidents(fresh.db, [school.student], { on: today }), await seen()];
    const noted = (observerId: string) =>
      minutesOfIncidents(incidents, naming, { observerId, behaviorId: followed.id('Leaves') }).sort();
    expect([noted(school.manager), noted(school.aide), noted(school.stranger)]).toEqual([[550, 560], [552], []]);
    expect(await newestIncidents(fresh.db, [school.student], { on: '2026-11-23' })).toEqual([]);
  });
});
