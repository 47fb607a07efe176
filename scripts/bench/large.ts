// npm run bench -- --large: a school of many years beside one of its first year. For a case manager of thirty each page should cost
// about the same in both.
import { Agent, request } from 'node:http';
import { connect, type Database } from '~/server/platform/db/database';
import { migrate } from '~/server/platform/db/migrate';
import { dropDatabase, makeDatabase, newName, urlOf } from '~/tests/database/databases';
import { addPerson, schoolId, trialsMeasure } from '~/tests/database/small-school';
import { type RunningServer, startServer } from '~/tests/e2e/server';
import { cookieOf } from './load';

const OF_ONE_MANAGER = 30;
const GOALS_A_YEAR = 5;
const TODAY = '2026-11-24';
/** A day of this school year, so that the newest is today. */
const ENTRIES_A_GOAL = 18;
const INCIDENTS_A_YEAR = 12;
const sizes = {
  young: { students: 194, years: 1 },
  grown: { students: 2194, years: 5 },
} as const;

interface Size {
  students: number;
  years: number;
}

/**
 * Fills a school with students, a plan and goals for each of their years, and what was observed of them. Years that are over have
 * retired goals.
 */
async function fill(db: Database, { students, years }: Size): Promise<string> {
  await db('schools').insert({
    id: schoolId,
    name: 'Large School',
    time_zone: 'America/New_York',
    weekdays: [1, 2, 3, 4, 5],
  });
  const managers: string[] = [];
  for (let i = 0; i < Math.ceil(students / OF_ONE_MANAGER); i++) managers.push(await addPerson(db, `manager${i}`));
  const values = { schoolId, managers, students, years, each: OF_ONE_MANAGER, measure: JSON.stringify(trialsMeasure) };
  const steps = [
    `insert into students (id, school_id, first_name, last_name, short_name, initials, grade)
     select gen_random_uuid(), :schoolId, 'Kid' || i, 'Surname' || i, 'Kid' || i || ' S.', 'KS', 'Grade 4'
       from generate_series(1, :students) i`,
    `insert into team_members (student_id, person_id, role, from_date)
     select id, (cast(:managers as uuid[]))[1 + (substr(first_name, 4)::int - 1) / :each], 'caseManager', '2020-09-01' from students`,
    `insert into plans (id, student_id, starts_on, ends_on, label)
     select gen_random_uuid(), s.id, make_date(2026 - y, 9, 1), make_date(2027 - y, 8, 31), 'year'
       from students s, generate_series(0, :years - 1) y`,
    `insert into goals (id, student_id, plan_id, number, area, short_name, wording, position, comparison, criterion_value, rule, rule_k,
                        rule_n, point_per, target, target_on, starts_on, retired_on, retired_how)
     select gen_random_uuid(), p.student_id, p.id, g || case when p.ends_on < '${TODAY}' then ' of ' || p.starts_on else '' end, 'Garden',
            'Plants a row', 'Plants along a string.', g, 'atLeast', 80, 'ofLast', 3, 4, 'day', 80, p.ends_on, p.starts_on,
            case when p.ends_on < '${TODAY}' then p.ends_on end, case when p.ends_on < '${TODAY}' then 'met' end
       from plans p, generate_series(1, ${GOALS_A_YEAR}) g`,
    `insert into goal_measures (goal_id, version, measure, from_date) select id, 1, cast(:measure as jsonb), starts_on from goals`,
    `insert into behavior_targets (id, school_id, student_id, name, position) select gen_random_uuid(), school_id, id, 'Leaves', 0 from students`,
  ];
  await db.transaction(async (trx) => {
    for (const step of steps) await trx.raw(step, values);
  });
  await db.raw('alter table entries disable trigger user');
  await db.transaction(async (trx) => {
    // Of this year up to today, of others through the year.
    const day = `g.starts_on + (n * (least(g.target_on, date '${TODAY}') - g.starts_on)) / ${ENTRIES_A_GOAL}`;
    await trx.raw(
      `insert into entries (id, kind, student_id, goal_id, measure_version, observed_on, observed_time, observer_id, recorded_by, recorded_at,
                            note, data)
       select gen_random_uuid(), 'goal', g.student_id, g.id, 1, ${day}, '09:30', m.person_id, m.person_id, ${day} + time '09:30', '',
              jsonb_build_object('trials', jsonb_build_array('independent', case when n % 3 = 0 then 'incorrect' else 'gesture' end, 'spoken'))
         from goals g join team_members m on m.student_id = g.student_id, generate_series(1, ${ENTRIES_A_GOAL}) n`,
    );
    const when = `p.starts_on + n * ${Math.floor(80 / INCIDENTS_A_YEAR)}`;
    await trx.raw(
      `with made as (
         insert into entries (id, kind, student_id, observed_on, observed_time, observer_id, recorded_by, recorded_at, note)
         select gen_random_uuid(), 'incident', p.student_id, ${when}, '10:15', m.person_id, m.person_id, ${when} + time '10:15', ''
           from plans p join team_members m on m.student_id = p.student_id, generate_series(1, ${INCIDENTS_A_YEAR}) n
         returning id, student_id)
       insert into incident_choices (entry_id, version, facet, position, student_id, target_id)
       select made.id, 1, 'behavior', 1, made.student_id, t.id from made join behavior_targets t on t.student_id = made.student_id`,
    );
  });
  await db.raw('alter table entries enable trigger user');
  await db.raw('vacuum analyze');
  return managers[0] as string;
}

const agent = new Agent({ keepAlive: true, maxSockets: 2 });

function ask(server: RunningServer, path: string, cookie: string): Promise<number> {
  const began = performance.now();
  return new Promise((resolve, reject) => {
    const sent = request(server.url + path, { agent, headers: { cookie } }, (answer) => {
      answer.resume();
      answer.on('end', () =>
        (answer.statusCode ?? 500) < 400
          ? resolve(performance.now() - began)
          : reject(new Error(`${path}: ${answer.statusCode}`)),
      );
    });
    sent.on('error', reject);
    sent.end();
  });
}

const median = (times: number[]) => times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)] as number;

/** A school of a size with a server before it, and the pages of a case manager of thirty, by what they are called here. */
async function ground(size: Size) {
  const name = newName('large');
  await makeDatabase(name);
  await migrate(urlOf(name));
  // To fill it takes minutes.
  const db = connect(urlOf(name), { longest: 0 });
  const manager = await fill(db, size);
  const entries = Number((await db('entries').select<{ n: string }[]>(db.raw('count(*) as n')))[0]?.n);
  const { student_id: student } = (await db('team_members').where({ person_id: manager }).first('student_id'))!;
  const goal = (await db('goals').where({ student_id: student }).whereNull('retired_on').first('id'))!;
  const cookie = await cookieOf(db, manager);
  const server = await startServer({ DATABASE_URL: urlOf(name), LOG_LEVEL: 'warn', CLOCK: `${TODAY}T15:30:00-05:00` });
  const end = async () => {
    await server.stop();
    await db.destroy();
    await dropDatabase(name);
  };
  const time = (path: string) => ask(server, path.replace(':id', student).replace(':goal', goal.id), cookie);
  return { entries, time, end };
}

const paths = [
  '/',
  '/students',
  '/team',
  '/reports',
  '/patterns',
  '/finder?find=kid',
  '/students/:id',
  '/students/:id/individual-report',
  '/students/:id/behavior',
  '/students/:id/goals/:goal',
];

const young = await ground(sizes.young);
const grown = await ground(sizes.grown);
const tenth = (ms: number) => Math.round(10 * ms) / 10;
const pages: Record<string, { youngMs: number; grownMs: number; ratio: number }> = {};
try {
  for (const path of paths) {
    // In turns, so that both see the same machine.
    const times: [number[], number[]] = [[], []];
    for (let i = 0; i < 40; i++) {
      times[0].push(await young.time(path));
      times[1].push(await grown.time(path));
    }
    const [youngMs, grownMs] = times.map((list) => median(list.slice(10))) as [number, number];
    pages[path] = {
      youngMs: tenth(youngMs),
      grownMs: tenth(grownMs),
      ratio: Math.round((100 * grownMs) / youngMs) / 100,
    };
  }
} finally {
  agent.destroy();
  await young.end();
  await grown.end();
}
const entries = { young: young.entries, grown: grown.entries };
console.log(JSON.stringify({ entries, pages, atMost: 1.5, todayAndStudentsAtMostMs: 250 }, null, 2));
