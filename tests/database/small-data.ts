import { randomUUID } from 'node:crypto';
import type { Rule } from '~/core/rules/rule';
import { carefulRules } from '~/core/sharing/visibility-rule';
import { correctObservation, withdrawObservation } from '~/server/entries/change';
import { recordCounts } from '~/server/entries/incidents/counts';
import { recordIncident } from '~/server/entries/incidents/record-incident';
import { recordSession } from '~/server/entries/record';
import { setFrequency } from '~/server/messages/frequency';
import type { Database } from '~/server/platform/db/database';
import { issueReport } from '~/server/progress-report/issued';
import { changeFollowUp, makeFollowUp } from '~/server/rules/follow-ups';
import { saveRule } from '~/server/rules/rules';
import { schoolOf } from '~/server/school/school';
import { sayComment } from '~/server/sharing/comments';
import { makeShareLink } from '~/server/sharing/share-links';
import { saveVisibilityRules } from '~/server/sharing/visibility';
import { savePlan } from '~/server/students/plan';
import { follow, incidentInputOf, moment } from './followed';
import { actorOf, now, schoolId, sessionOf, smallSchool, today, wall } from './small-school';

/**
 * Fills an empty database with a little of everything that lasts: a plan, entries of each kind, a correction and a withdrawal, a
 * share link, a comment, a rule of its own, an issued report.
 */
export async function fillSmall(db: Database) {
  const school = await smallSchool(db);
  const manager = actorOf(school.manager);
  const { student } = school;
  const plan = {
    startsOn: '2026-09-08',
    endsOn: '2027-06-11',
    periods: [{ label: 'Quarter 1', endsOn: '2026-12-04' }],
  };
  await savePlan(db, manager, student, plan, { newId: randomUUID(), now });
  const record = async (on: string, trials: string[]) =>
    (await recordSession(db, manager, student, sessionOf(school, trials, { on }), { wall, now })).ids[0] as string;
  const kept = await record('2026-11-18', ['independent', 'gesture', 'incorrect']);
  const corrected = await record('2026-11-19', ['independent', 'spoken']);
  const withdrawn = await record('2026-11-20', ['gesture']);
  const outcome = { data: { trials: ['independent', 'independent'] }, reason: null };
  const session = { on: '2026-11-19', time: '09:30', observerId: school.manager, locationId: school.kitchen };
  const fidelity = [{ key: 'step1', label: 'Card on the bench', isDone: true }];
  const correction = { ...session, outcome, note: 'Counted anew.', fidelity, version: 1, why: 'From paper.' };
  await correctObservation(db, manager, { studentId: student, entryId: corrected }, correction, { wall, now });
  const why = { version: 1, why: 'Another student’s.' };
  await withdrawObservation(db, manager, { studentId: student, entryId: withdrawn }, why, now);
  const { id } = await follow(db, school);
  const incident = incidentInputOf(school, [id('Leaves')], {
    antecedents: [id('Noise')],
    seconds: 40,
    note: 'By the door.',
  });
  await recordIncident(db, manager, student, incident, moment);
  const window = {
    id: randomUUID(),
    behaviorId: id('Leaves'),
    on: today,
    time: '09:00',
    part: '',
    minutes: 30,
    count: 0,
  };
  const counted = { ...window, seconds: null, note: '', observerId: school.manager };
  await recordCounts(db, manager, student, { counts: [counted], besideId: undefined }, moment);
  const way = { id: randomUUID(), readerName: 'Aunt Ida', kind: 'family' as const, endsOn: '2027-06-11' };
  await makeShareLink(db, manager, student, way, now);
  await setFrequency(db, manager, student, { id: way.id, email: 'ida@home.example', frequency: 'daily' }, now);
  const comment = { id: randomUUID(), entryId: kept, text: 'Well done.' };
  await sayComment(db, student, { kind: 'family', linkId: way.id }, comment, { wall, now, mayRead: async () => true });
  const family = { ...carefulRules.family, shows: ['numbers' as const, 'note' as const] };
  await saveVisibilityRules(db, manager, student, { ...carefulRules, family }, now);
  const words = { whole: { type: 'doc' as const, content: [] }, goals: {} };
  const issue = {
    id: randomUUID(),
    period: '2026-12-04',
    version: 0,
    words,
    readers: ['family' as const],
    replaces: null,
  };
  await issueReport(db, manager, student, issue, { school: await schoolOf(db, schoolId), now });
  const marks: Rule = {
    when: { trigger: 'goalEntry', fulfils: 'all', conditions: [{ is: 'figure', comparison: 'below', value: 50 }] },
    does: { mark: { word: 'Low', look: 'line' }, followUp: null, message: null },
  };
  await saveRule(
    db,
    manager,
    { id: randomUUID(), name: 'Low', scope: { of: 'mine' }, rule: marks, mayTellOften: false },
    now,
  );
  const followUp = { id: randomUUID(), studentId: student, entryId: kept, what: 'Call home', inReport: true };
  await makeFollowUp(db, manager, { ...followUp, forPerson: school.manager, dueOn: '2026-11-30' }, now);
  await changeFollowUp(db, manager, followUp.id, { what: 'done', word: 'We spoke.', version: 1 }, now);
  return school;
}
