import { useState } from 'react';
import { Form, Link, useSearchParams } from 'react-router';
import { z } from 'zod';
import { counted } from '~/core/words/counting';
import { database } from '~/server/db/current';
import { type RosterStudent, roster, rosterChoices, setArchived } from '~/server/roster/roster';
import { answering } from '../http/answering';
import { askerOf } from '../http/asker';
import { formOf } from '../http/form-of';
import { Dialog } from '../ui/dialog';
import { MarginTitle, Page } from '../ui/page';
import type { Route } from './+types/roster';

export const loader = answering(async ({ context }: Route.LoaderArgs) => {
  const { actor, discreet } = askerOf(context);
  const [students, { groups }] = await Promise.all([roster(database(), actor), rosterChoices(database(), actor)]);
  const shown = (student: RosterStudent) => ({
    id: student.id,
    name: discreet ? student.initials : `${student.firstName} ${student.lastName}`,
    grade: student.grade,
    groups: student.groups.map(({ name }) => name),
    caseManager: student.caseManager?.name ?? null,
    isArchived: student.isArchived,
  });
  return { students: students.map(shown), groups: groups.map(({ name }) => name) };
});

const archiving = z.object({ id: z.uuid(), intent: z.enum(['archive', 'bringBack']) });

export const action = answering(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = askerOf(context);
  const parsed = archiving.safeParse(Object.fromEntries(await formOf(request)));
  if (!parsed.success) return { ok: false };
  const { id, intent } = parsed.data;
  await setArchived(database(), actor, { studentId: id, isArchived: intent === 'archive' }, now);
  return { ok: true };
});

export const meta: Route.MetaFunction = () => [{ title: 'Roster · Gentle Margin' }];

type Row = Route.ComponentProps['loaderData']['students'][number];

export default function Roster({ loaderData: { students, groups } }: Route.ComponentProps) {
  const [search, setSearch] = useSearchParams();
  const [text, setText] = useState('');
  const group = search.get('group') ?? '';
  const isArchive = search.get('show') === 'archived';
  const shown = students.filter(
    (student) =>
      student.isArchived === isArchive &&
      (group === '' || student.groups.includes(group)) &&
      student.name.toLowerCase().includes(text.trim().toLowerCase()),
  );
  const archived = students.filter((student) => student.isArchived).length;
  const choose = (key: string, value: string) =>
    setSearch((before) => {
      if (value) before.set(key, value);
      else before.delete(key);
      return before;
    });
  return (
    <Page
      marginName="About the roster"
      margin={
        <>
          <MarginTitle>About the roster</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>A student has a page from the moment they are on the roster, before anything is observed.</p>
            <p>
              You see everybody’s name here because you set up the school. What was observed is for the support team.
            </p>
            <p>An archived student leaves every list. All that was recorded stays, and comes back with them.</p>
            <p>
              <Link to="/school" className="font-semibold underline underline-offset-2">
                School days, groups and places
              </Link>
            </p>
          </div>
        </>
      }
    >
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="text-3xl">Roster</h1>
          <p className="mt-1.5 text-small text-ink-2">{counted(students.length - archived, 'student', 'students')}</p>
        </div>
        <Link to="/roster/new" className="btn btn-primary h-11 px-5 text-base">
          Add a student
        </Link>
      </header>
      <div className="mt-5 flex flex-wrap gap-3">
        <input
          type="search"
          aria-label="Find in the roster"
          placeholder="A name"
          value={text}
          onChange={(event) => setText(event.target.value)}
          className="input w-56"
        />
        <select
          aria-label="Class group"
          value={group}
          onChange={(event) => choose('group', event.target.value)}
          className="select w-52"
        >
          <option value="">All groups</option>
          {groups.map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
        {(archived > 0 || isArchive) && (
          <button
            type="button"
            aria-pressed={isArchive}
            onClick={() => choose('show', isArchive ? '' : 'archived')}
            className={`btn ${isArchive ? 'btn-primary' : ''}`}
          >
            Archived ({archived})
          </button>
        )}
      </div>
      {shown.length === 0 && (
        <p className="py-10 text-ink-2">
          {students.length === 0 ? 'The roster is empty. Begin with the first student.' : 'Nobody matches.'}
        </p>
      )}
      <ul className="mt-4 pb-16">
        {shown.map((student) => (
          <RosterRow key={student.id} student={student} />
        ))}
      </ul>
    </Page>
  );
}

function RosterRow({ student }: { student: Row }) {
  const [isAsking, setAsking] = useState(false);
  const { id, name, grade, groups, caseManager, isArchived } = student;
  return (
    <li className="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-rule py-3">
      <span className="display w-48 text-lg">
        {isArchived ? (
          name
        ) : (
          <Link to={`/students/${id}/edit`} className="hover:underline">
            {name}
          </Link>
        )}
      </span>
      <span className="w-20 text-small text-ink-2">{grade}</span>
      <span className="min-w-40 grow text-small text-ink-2">{groups.join(', ') || 'no group yet'}</span>
      <span className="w-40 text-small text-ink-2">{caseManager ?? 'no case manager'}</span>
      {isArchived ? (
        <Form method="post">
          <input type="hidden" name="id" value={id} />
          <button
            type="submit"
            name="intent"
            value="bringBack"
            aria-label={`Bring ${name} back`}
            className="btn btn-sm"
          >
            Bring back
          </button>
        </Form>
      ) : (
        <button type="button" aria-label={`Archive ${name}`} onClick={() => setAsking(true)} className="btn btn-sm">
          Archive
        </button>
      )}
      {isAsking && (
        <Dialog title={`Archive ${name}?`} onClose={() => setAsking(false)}>
          <Form method="post" className="p-6" onSubmit={() => setAsking(false)}>
            <h2 className="text-xl">Archive {name}?</h2>
            <p className="mt-2">They leave every list and tab. All that was recorded stays; you can bring them back.</p>
            <input type="hidden" name="id" value={id} />
            <div className="mt-5 flex justify-end gap-2">
              <button type="button" className="btn" onClick={() => setAsking(false)}>
                Keep on the roster
              </button>
              <button type="submit" name="intent" value="archive" className="btn btn-primary">
                Archive
              </button>
            </div>
          </Form>
        </Dialog>
      )}
    </li>
  );
}
