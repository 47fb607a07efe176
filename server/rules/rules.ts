import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { type Rule, type RuleInput, type RuleScope, rule } from '~/core/rules/rule';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid, NotAllowed, NotFound, nullIf } from '../platform/failures';
import { isSchoolAdmin } from '../school/administrators';
import type { Actor } from '../school/school';
import { can, type Membership, membershipRow } from '../students/rights';
import { requireStudent, studentsOf } from '../students/students';

const storedRow = z.object({
  id: z.string(),
  version: z.number(),
  name: z.string(),
  rule,
  studentId: z.string().nullable(),
  groupId: z.string().nullable(),
  isOfSchool: z.boolean(),
  madeBy: z.string(),
  maker: z.string(),
  onSince: z.date(),
  isOff: z.boolean(),
  changedAt: z.date(),
});
type Stored = z.infer<typeof storedRow>;

/** A rule in its present version. */
export interface StoredRule {
  id: string;
  version: number;
  name: string;
  rule: Rule;
  scope: RuleScope;
  madeBy: string;
  maker: string;
  onSince: Date;
  isOff: boolean;
  changedAt: Date;
}

const columns = `
  r.id, v.version, v.name, v.rule, r.student_id as "studentId", r.group_id as "groupId", r.is_of_school as "isOfSchool",
  r.made_by as "madeBy", p.short_name as maker, r.on_since as "onSince", r.switched_off_at is not null as "isOff", v.made_at as "changedAt"`;
const from = `
  rules r join people p on p.id = r.made_by
  join lateral (select * from rule_versions x where x.rule_id = r.id order by x.version desc limit 1) v on true`;

function scopeOf({ studentId, groupId, isOfSchool }: Stored): RuleScope {
  if (studentId) return { of: 'student', studentId };
  if (groupId) return { of: 'group', groupId };
  return { of: isOfSchool ? 'school' : 'mine' };
}

const fromRow = (row: Stored): StoredRule => {
  const { studentId: _, groupId: __, isOfSchool: ___, ...rest } = row;
  return { ...rest, scope: scopeOf(row) };
};

/** The rules that the one who asks may know of: their own, the school's, and those about students whom they see. */
export async function rulesOf(db: Database, actor: Actor): Promise<StoredRule[]> {
  const seen = (await studentsOf(db, actor)).map(({ id }) => id);
  const found = await rowsOf(
    db,
    storedRow,
    `select ${columns} from ${from}
      where r.school_id = :schoolId and (r.made_by = :personId or r.is_of_school or r.student_id = any(:seen)
            or (r.student_id is null and exists (
              select from team_members m where m.person_id = r.made_by and m.student_id = any(:seen)
                 and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today)))
      order by r.switched_off_at is not null, v.name, r.id limit 300`,
    { ...actor, seen },
  );
  return found.map(fromRow);
}

/** @throws NotFound where there is none that the one who asks may know of */
export async function ruleOf(db: Database, actor: Actor, id: string): Promise<StoredRule> {
  const found = (await rulesOf(db, actor)).find((one) => one.id === id);
  if (!found) throw new NotFound('No such rule.');
  return found;
}

/** Whether somebody may change a rule: who made it; a rule of the school any administrator. */
export const mayChangeRule = ({ madeBy, scope }: StoredRule, actor: Actor, isAdmin: boolean): boolean =>
  madeBy === actor.personId || (scope.of === 'school' && isAdmin);

/**
 * Keeps a rule, new or as a new version. Sent twice, it is there once. Whom it is about stays as it was.
 *
 * @throws NotFound for a student whose goals they do not edit, a group that is not there, and somebody else's rule
 * @throws NotAllowed for a rule of the school by somebody who does not administer it
 */
export async function saveRule(db: Database, actor: Actor, input: RuleInput, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const isAdmin = await isSchoolAdmin(trx, actor);
    const { scope } = input;
    const made = { school_id: actor.schoolId, made_by: actor.personId, made_at: now, on_since: now };
    const known = await trx('rules').where({ id: input.id }).first('id');
    if (!known) await mustReach(trx, actor, scope, isAdmin);
    await trx('rules')
      .insert({
        ...{ id: input.id, ...made, is_of_school: scope.of === 'school' },
        student_id: scope.of === 'student' ? scope.studentId : null,
        group_id: scope.of === 'group' ? scope.groupId : null,
      })
      .onConflict('id')
      .ignore();
    // One that is just being made has no version yet.
    const stands = await nullIf(NotFound, ruleOf(trx, actor, input.id));
    if (stands && !mayChangeRule(stands, actor, isAdmin)) throw new NotFound('No such rule.');
    if (stands && stands.name === input.name && isDeepStrictEqual(stands.rule, input.rule)) return;
    const mine = await trx('rules').where({ id: input.id, school_id: actor.schoolId }).forUpdate().first('made_by');
    if (!mine || (!stands && mine.made_by !== actor.personId)) throw new NotFound('No such rule.');
    await takeOver(trx, actor, input.id);
    await trx('rule_versions').insert({
      ...{ rule_id: input.id, version: (stands?.version ?? 0) + 1, name: input.name },
      ...{ rule: JSON.stringify(input.rule), made_by: actor.personId, made_at: now },
    });
  });
}

/** A rule of the school holds by an administrator who is there: from now on by the one who changes it. */
async function takeOver(db: Database, { personId }: Actor, id: string): Promise<void> {
  await db('rules').where({ id, is_of_school: true }).update({ made_by: personId });
}

async function mustReach(db: Database, actor: Actor, scope: RuleScope, isAdmin: boolean): Promise<void> {
  if (scope.of === 'student') await requireStudent(db, actor, scope.studentId, 'editGoals');
  if (scope.of === 'school' && !isAdmin)
    throw new NotAllowed('Only an administrator makes a rule for the whole school.');
  if (scope.of !== 'group') return;
  const group = await db('class_groups').where({ id: scope.groupId, school_id: actor.schoolId }).first('id');
  if (!group) throw new Invalid({ scope: 'This group is not there any more.' });
}

/**
 * Switches a rule off, or on again: then what follows from it follows for what is recorded from now on.
 *
 * @throws NotFound for a rule that they may not change
 */
export async function switchRule(
  db: Database,
  actor: Actor,
  { id, isOff }: { id: string; isOff: boolean },
  now: Date,
): Promise<void> {
  const stands = await ruleOf(db, actor, id);
  if (!mayChangeRule(stands, actor, await isSchoolAdmin(db, actor))) throw new NotFound('No such rule.');
  if (stands.isOff === isOff) return;
  if (!isOff) await takeOver(db, actor, id);
  await db('rules')
    .where({ id })
    .update(isOff ? { switched_off_at: now } : { switched_off_at: null, on_since: now });
}

/** What a rule said in each of its versions, the newest first. */
export async function versionsOf(db: Database, id: string) {
  return rowsOf(
    db,
    z.object({ version: z.number(), name: z.string(), rule, madeBy: z.string(), madeAt: z.date() }),
    `select v.version, v.name, v.rule, p.short_name as "madeBy", v.made_at as "madeAt"
       from rule_versions v join people p on p.id = v.made_by where v.rule_id = ? order by v.version desc`,
    [id],
  );
}

/** A rule that is switched on, with the students of those that were asked about whom it reaches. */
export interface ReachingRule extends StoredRule {
  reaches: ReadonlySet<string>;
}

const aroundRow = z.object({
  studentId: z.string(),
  groups: z.array(z.string()),
  members: z.array(membershipRow.extend({ personId: z.string() })),
});

/**
 * The rules that are switched on and reach any of some students. One whose maker may not edit a student's goals any more does not
 * reach that student; one of the school rests while its maker administers it no longer.
 */
export async function rulesReaching(
  db: Database,
  schoolId: string,
  studentIds: readonly string[],
  today: IsoDate,
): Promise<ReachingRule[]> {
  if (studentIds.length === 0) return [];
  const found = await rowsOf(
    db,
    storedRow,
    `select ${columns} from ${from}
      where r.school_id = :schoolId and r.switched_off_at is null
            and (r.student_id is null or r.student_id = any(:ids)) order by v.name, r.id`,
    { schoolId, ids: [...studentIds] },
  );
  if (found.length === 0) return [];
  const makers = [...new Set(found.map(({ madeBy }) => madeBy))];
  const [around, admins] = await Promise.all([
    rowsOf(
      db,
      aroundRow,
      `select s.id as "studentId",
              array(select g.group_id::text from student_groups g where g.student_id = s.id) as groups,
              (select coalesce(json_agg(json_build_object('personId', m.person_id, 'role', m.role, 'rights', m.rights)), '[]')
                 from team_members m where m.student_id = s.id and m.person_id = any(:makers)
                      and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today) as members
         from students s where s.id = any(:ids) and s.school_id = :schoolId`,
      { ids: [...studentIds], makers, today, schoolId },
    ),
    db('school_staff')
      .where({ school_id: schoolId, is_admin: true })
      .whereIn('person_id', makers)
      .where('from_date', '<=', today)
      .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
      .pluck('person_id'),
  ]);
  const edits = (members: readonly (Membership & { personId: string })[], personId: string) =>
    members.some((member) => member.personId === personId && can(member, 'editGoals'));
  return found
    .map((row) => {
      const one = fromRow(row);
      const { scope } = one;
      const isReached = ({ studentId, groups, members }: z.infer<typeof aroundRow>) => {
        if (scope.of === 'school') return admins.includes(one.madeBy);
        if (!edits(members, one.madeBy)) return false;
        if (scope.of === 'student') return scope.studentId === studentId;
        return scope.of === 'mine' || groups.includes(scope.groupId);
      };
      return { ...one, reaches: new Set(around.filter(isReached).map(({ studentId }) => studentId)) };
    })
    .filter(({ reaches }) => reaches.size > 0);
}
