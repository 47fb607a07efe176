import { addDays, type IsoDate, weekday, weekdayName } from '~/core/calendar/iso-date';
import { schoolDays } from '~/core/calendar/school-days';
import { hoursOf } from '~/core/calendar/timetable';
import { type DemoFollowed, followed, noteWords, startingLists } from './behavior-patterns';
import { SEED, type Surroundings } from './goal-rows';
import { type Random, randomFrom } from './random';
import type { Row } from './rows';
import { recordedAt } from './rows';
import { type DemoStudent, dayParts, locations, type StaffKey, students } from './school';

type Around = Omit<Surroundings, 'random'>;
type Tables = Record<'behavior_fields' | 'behavior_phases' | 'entries' | 'incident_choices', Row[]> & {
  choices: Row[];
};

/** What is noted of the students whose behavior is followed, and the lists that the school begins from. */
export function behaviorRows(studentIds: ReadonlyMap<string, string>, around: Around) {
  const random = randomFrom(SEED - 3);
  const school = choiceRows(random, null, [], around);
  const all = followed.map((one) => followedRows(one, studentIds.get(one.student) as string, random, around));
  const together = (table: keyof Tables) => all.flatMap((rows) => rows[table]);
  const choices = [...school, ...together('choices')];
  const lists: [table: string, rows: Row[]][] = [
    ['behavior_targets', choices.filter(({ kind }) => kind === 'behavior').map(targetOf)],
    ['behavior_options', choices.filter(({ kind }) => kind !== 'behavior').map(optionOf)],
    ['behavior_fields', together('behavior_fields')],
    ['behavior_phases', together('behavior_phases')],
  ];
  return { lists, entries: together('entries'), choices: together('incident_choices') };
}

const targetOf = ({ kind: _, location_id: __, words, unlike, abc, counted, timed, ...row }: Row): Row => ({
  ...{ ...row, definition: words, not_counted: unlike, by_abc: abc, by_count: counted, by_time: timed },
});
const optionOf = ({ id, school_id, student_id, kind, name, position, words, location_id }: Row): Row => ({
  ...{ id, school_id, student_id, facet: kind, label: name, position, description: words, location_id },
});

function choiceRows(
  random: Random,
  studentId: string | null,
  behaviors: DemoFollowed['behaviors'],
  { locationIds, schoolId }: Around,
): Row[] {
  const row = (kind: string, name: string, position: number, more: Row = {}): Row => ({
    ...{
      id: random.uuid(),
      school_id: schoolId,
      student_id: studentId,
      kind,
      name,
      position,
      words: '',
      location_id: null,
    },
    ...{ unlike: '', direction: 'decrease', abc: true, counted: false, timed: false, ...more },
  });
  return [
    ...behaviors.map(({ name, words, unlike, counted = false, timed = false }, i) =>
      row('behavior', name, i, { words, unlike, counted, timed }),
    ),
    ...Object.entries(startingLists).flatMap(([kind, list]) =>
      list.map(([name, words], i) => row(kind, name, i, { words })),
    ),
    ...locations.map((name, i) => row('location', name, i, { location_id: locationIds.get(name) })),
  ];
}

function followedRows(one: DemoFollowed, studentId: string, random: Random, around: Around): Tables {
  const { year, today, calendar, staffIds } = around;
  const student = students.find(({ first }) => first === one.student) as DemoStudent;
  const choices = choiceRows(random, studentId, one.behaviors, around);
  const idOf = (kind: string, name: string) =>
    choices.find((choice) => choice.kind === kind && choice.name === name)?.id as string;
  const team = (Object.keys(student.team) as StaffKey[]).map((key) => staffIds.get(key) as string);
  const changedOn = one.change ? addDays(today, -7 * one.change.weeksAgo) : null;
  // Up to yesterday: of today nothing may be noted that has not come yet.
  const days = schoolDays(`${year}-09-08`, addDays(today, -1), calendar);
  const incidents: Row[] = [];
  const named: Row[] = [];
  const counts: Row[] = [];
  for (const on of days) {
    for (const [i, behavior] of one.behaviors.entries()) {
      const isSince = i === 0 && changedOn !== null && on >= changedOn;
      const rate = behavior.aDay[isSince ? 1 : 0] * (behavior.weekdays?.[weekdayName(weekday(on))] ?? 1);
      const often = [rate, rate / 2, rate / 3].filter((chance) => random.happens(Math.min(0.95, chance * 0.6))).length;
      for (let incident = 0; incident < often; incident++) {
        const part = weighted(random, partsOn(student, on, behavior.parts));
        if (part === null) continue;
        const dayPart = dayParts.find((one) => one.part === part && fits(student, one.group));
        const said = <K extends 'antecedents' | 'consequences' | 'functions'>(list: K, kind: string) =>
          several(random, behavior[list]).map((name) => idOf(kind, name));
        const seconds =
          behavior.seconds && random.happens(0.7)
            ? Math.round(behavior.seconds * (0.4 + random.whole(0, 12) / 10))
            : null;
        const resolved = random.happens(0.8) ? random.happens(0.85) : null;
        const time = timeIn(random, dayPart);
        const id = random.uuid();
        const seen = whoSaw(random.pick(team), on, time);
        const choose = (facet: string, ids: string[]) =>
          ids.forEach((choice, i) => {
            const [target_id, option_id] = facet === 'behavior' ? [choice, null] : [null, choice];
            named.push({
              entry_id: id,
              version: 1,
              student_id: studentId,
              facet,
              position: i + 1,
              target_id,
              option_id,
            });
          });
        choose('location', dayPart ? [idOf('location', dayPart.location)] : []);
        choose('behavior', [idOf('behavior', behavior.name)]);
        choose('antecedent', said('antecedents', 'antecedent'));
        choose('consequence', said('consequences', 'consequence'));
        choose('function', random.happens(0.6) ? said('functions', 'function') : []);
        const step = random.happens(0.75) ? String(weighted(random, { 1: 4, 2: 5, 3: 1 })) : null;
        choose('intensity', step === null ? [] : [idOf('intensity', step)]);
        incidents.push({
          ...{ id, student_id: studentId, kind: 'incident', observed_on: on, observed_time: time },
          ...{ ...seen, seconds, is_going: false, resolved },
          resolved_after: resolved && random.happens(0.6) ? 60 * random.whole(1, 12) : null,
          note: random.happens(0.15) ? random.pick(noteWords) : '',
        });
      }
      if (behavior.counted && random.happens(0.7)) counts.push(...tallyRows(behavior, on));
    }
  }
  return {
    choices,
    behavior_fields: [{ student_id: studentId, left_out: one.student === 'Linnea' ? ['function', 'duration'] : [] }],
    behavior_phases: changedOn
      ? [
          {
            id: random.uuid(),
            student_id: studentId,
            target_id: null,
            label: one.change?.label,
            starts_on: changedOn,
            made_by: staffIds.get('hanneke'),
          },
        ]
      : [],
    entries: [...incidents, ...counts],
    incident_choices: named,
  };

  function tallyRows(behavior: DemoFollowed['behaviors'][number], on: IsoDate): Row[] {
    const parts = dayParts.filter(
      ({ group, part }) => fits(student, group) && (part === 'Lunch' || part === 'Lessons'),
    );
    return parts.map((part) => {
      const often = part.part === 'Lunch' ? 3 : 1;
      return {
        ...{ id: random.uuid(), student_id: studentId, kind: 'count', target_id: idOf('behavior', behavior.name) },
        ...{ observed_on: on, observed_time: part.from, part: part.part, minutes: Math.round(60 * hoursOf(part)) },
        ...{ count: random.happens(0.35) ? 0 : random.whole(0, often), seconds: null, note: '' },
        ...whoSaw(random.pick(team), on, part.to),
      };
    });
  }
}

const fits = ({ group }: DemoStudent, partGroup: string | null) => partGroup === null || partGroup === group;

const whoSaw = (person: string, on: IsoDate, time: string): Row => ({
  observer_id: person,
  recorded_by: person,
  recorded_at: recordedAt(on, time),
});

/** Each part of a day with its hours times how likely it is there. */
function partsOn(student: DemoStudent, on: IsoDate, parts: Record<string, number>): Record<string, number> {
  const day = weekdayName(weekday(on));
  return Object.fromEntries(
    dayParts
      .filter(({ group }) => fits(student, group))
      .map((part) => [part.part, hoursOf(part) * (parts[`${day} ${part.part}`] ?? parts[part.part] ?? 0)]),
  );
}

function timeIn(random: Random, part: { from: string; to: string } | undefined): string {
  const minutes = (text: string) => Number(text.slice(0, 2)) * 60 + Number(text.slice(3, 5));
  const at = part ? random.whole(minutes(part.from), minutes(part.to) - 1) : 600;
  return `${String(Math.floor(at / 60)).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`;
}

/** One name, by how often it comes up; null where none does. */
function weighted(random: Random, weights: Record<string, number>): string | null {
  const entries = Object.entries(weights).map(([name, weight]): [string, number] => [name, Math.round(weight * 100)]);
  const total = entries.reduce((sum, [, weight]) => sum + weight, 0);
  if (total === 0) return null;
  let at = random.whole(1, total);
  for (const [name, weight] of entries) {
    at -= weight;
    if (at <= 0) return name;
  }
  return null;
}

/** One name, now and then two. */
function several(random: Random, weights: Record<string, number>): string[] {
  const names = [weighted(random, weights), random.happens(0.12) ? weighted(random, weights) : null];
  return [...new Set(names.filter((name) => name !== null))];
}
