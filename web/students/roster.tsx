import { useRef, useState } from 'react';
import { Form, Link, useFetcher, useSearchParams, useSubmit } from 'react-router';
import { z } from 'zod';
import { counted } from '~/core/words/counting';
import { database } from '~/server/platform/db/current';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { ROSTER_PAGE, type RosterStudent, roster, rosterChoices, setArchived } from '~/server/students/roster';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { Dialog } from '../platform/ui/dialog';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/roster';
import { rosterWords } from './words';

const wanted = z.object({
  find: z.string().trim().max(100).default('').catch(''),
  group: z.string().max(120).default('').catch(''),
  show: z.enum(['archived', '']).default('').catch(''),
  page: z.coerce.number().int().min(1).max(10_000).default(1).catch(1),
});

export const loader = withErrors(async ({ request, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const asked = wanted.parse(Object.fromEntries(new URL(request.url).searchParams));
  // In the discreet view nobody is found by the name that is not shown.
  const find = discreet ? '' : asked.find;
  const { students, ...counts } = await roster(database(), await requireSchoolAdmin(database(), actor), {
    ...{ find, group: asked.group || null, isArchived: asked.show === 'archived', page: asked.page },
  });
  const { groups } = await rosterChoices(database(), actor);
  const shown = (student: RosterStudent) => ({
    id: student.id,
    name: discreet ? student.initials : `${student.firstName} ${student.lastName}`,
    grade: student.grade,
    groups: student.groups.map(({ name }) => name),
    caseManager: student.caseManager?.name ?? null,
    isArchived: student.isArchived,
  });
  return {
    ...{ asked, counts, students: students.map(shown), groups: groups.map(({ name }) => name) },
    pages: Math.max(1, Math.ceil(counts.found / ROSTER_PAGE)),
  };
});

const archiving = z.object({ id: z.uuid(), intent: z.enum(['archive', 'bringBack']) });

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const parsed = archiving.safeParse(Object.fromEntries(await formOf(request)));
  if (!parsed.success) return { ok: false };
  const { id, intent } = parsed.data;
  await setArchived(
    database(),
    await requireSchoolAdmin(database(), actor),
    { studentId: id, isArchived: intent === 'archive' },
    now,
  );
  return { ok: true };
});

export const meta: Route.MetaFunction = () => [{ title: rosterWords.pageTitle }];

type Row = Route.ComponentProps['loaderData']['students'][number];

export default function Roster({ loaderData: { asked, counts, pages, students, groups } }: Route.ComponentProps) {
  const submit = useSubmit();
  const [search] = useSearchParams();
  const isArchive = asked.show === 'archived';
  const ask = useRef<ReturnType<typeof setTimeout>>(undefined);
  /** What is typed is asked for a moment later, at the first page of it. */
  const askSoon = (form: HTMLFormElement | null, wait = 0) => {
    clearTimeout(ask.current);
    ask.current = setTimeout(() => submit(form, { replace: true, preventScrollReset: true }), wait);
  };
  const to = (page: number) => {
    const next = new URLSearchParams(search);
    next.set('page', String(page));
    return `?${next}`;
  };
  return (
    <Page
      marginName={rosterWords.aboutTheRoster}
      help="roster"
      margin={
        <>
          <MarginTitle>{rosterWords.aboutTheRoster}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{rosterWords.aStudentHasAPage}</p>
            <p>{rosterWords.youSeeEverybodysNameHere}</p>
            <p>{rosterWords.anArchivedStudentLeavesEvery}</p>
            <p>
              <Link to="/school" className="font-semibold link">
                {rosterWords.schoolDaysGroupsAndLocations}
              </Link>
            </p>
          </div>
        </>
      }
    >
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="text-3xl">{rosterWords.roster}</h1>
          <p className="mt-1.5 text-small text-ink-2">{counted(counts.enrolled, 'student', 'students')}</p>
        </div>
        <span className="flex flex-wrap gap-3">
          <Link to="/imports" className="btn px-5 text-base">
            {rosterWords.importAList}
          </Link>
          <Link to="/roster/new" className="btn btn-primary px-5 text-base">
            {rosterWords.addAStudent}
          </Link>
        </span>
      </header>
      <Form role="search" className="mt-5 flex flex-wrap gap-3">
        <input
          type="search"
          name="find"
          aria-label={rosterWords.findInTheRoster}
          placeholder={rosterWords.aName}
          defaultValue={asked.find}
          onChange={(event) => askSoon(event.currentTarget.form, 250)}
          className="input w-56"
        />
        <select
          name="group"
          aria-label={rosterWords.classGroup}
          defaultValue={asked.group}
          onChange={(event) => askSoon(event.currentTarget.form)}
          className="select w-52"
        >
          <option value="">{rosterWords.allGroups}</option>
          {groups.map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
        {isArchive && <input type="hidden" name="show" value="archived" />}
        {(counts.archived > 0 || isArchive) && (
          <Link
            to={isArchive ? '?' : '?show=archived'}
            aria-current={isArchive ? 'true' : undefined}
            className={`btn ${isArchive ? 'btn-primary' : ''}`}
          >
            {rosterWords.archived(counts.archived)}
          </Link>
        )}
      </Form>
      {students.length === 0 && (
        <p className="py-10 text-ink-2">
          {counts.enrolled + counts.archived === 0 ? rosterWords.theRosterIsEmptyBegin : rosterWords.nobodyMatches}
        </p>
      )}
      <ul className="mt-4 pb-16">
        {students.map((student) => (
          <RosterRow key={student.id} student={student} />
        ))}
      </ul>
      {pages > 1 && (
        <nav
          aria-label={rosterWords.pagesOfTheRoster}
          className="flex flex-wrap items-center gap-3 pb-16 text-small text-ink-2"
        >
          {asked.page > 1 && (
            <Link to={to(asked.page - 1)} rel="prev" className="btn">
              {rosterWords.before}
            </Link>
          )}
          <span>
            {rosterWords.pageOf(Math.min(asked.page, pages), pages, counted(counts.found, 'student', 'students'))}
          </span>
          {asked.page < pages && (
            <Link to={to(asked.page + 1)} rel="next" className="btn">
              {rosterWords.next}
            </Link>
          )}
        </nav>
      )}
    </Page>
  );
}

function RosterRow({ student }: { student: Row }) {
  const [isAsking, setAsking] = useState(false);
  // Not a navigation: a search that is still on its way must not put an end to it, nor it to the search.
  const change = useFetcher();
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
      <span className="min-w-40 grow text-small text-ink-2">{groups.join(', ') || rosterWords.noGroupYet}</span>
      <span className="w-40 text-small text-ink-2">{caseManager ?? rosterWords.noCaseManager}</span>
      {isArchived ? (
        <change.Form method="post">
          <input type="hidden" name="id" value={id} />
          <button
            type="submit"
            name="intent"
            value="bringBack"
            aria-label={rosterWords.bringBackNamed(name)}
            className="btn btn-sm"
          >
            {rosterWords.bringBack}
          </button>
        </change.Form>
      ) : (
        <button
          type="button"
          aria-label={rosterWords.archiveNamed(name)}
          onClick={() => setAsking(true)}
          className="btn btn-sm"
        >
          {rosterWords.archive}
        </button>
      )}
      {isAsking && (
        <Dialog title={rosterWords.archiveThem(name)} onClose={() => setAsking(false)}>
          <change.Form method="post" className="p-6" onSubmit={() => setAsking(false)}>
            <h2 className="text-xl">{rosterWords.archiveThem(name)}</h2>
            <p className="mt-2">{rosterWords.theyLeaveEveryListAnd}</p>
            <input type="hidden" name="id" value={id} />
            <div className="mt-5 flex justify-end gap-2">
              <button type="button" className="btn" onClick={() => setAsking(false)}>
                {rosterWords.keepOnTheRoster}
              </button>
              <button type="submit" name="intent" value="archive" className="btn btn-primary">
                {rosterWords.archive}
              </button>
            </div>
          </change.Form>
        </Dialog>
      )}
    </li>
  );
}
