import { Link } from 'react-router';
import { discreetStudent } from '~/core/goals/discreet';
import { database } from '~/server/platform/db/current';
import { can } from '~/server/students/rights';
import { studentsOf } from '~/server/students/students';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/record-for';
import { recordForWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const students = await studentsOf(database(), actor);
  return {
    students: students
      .filter((student) => can(student, 'observe'))
      .map((student) => {
        const { id, shortName, initials } = discreet ? discreetStudent(student) : student;
        return { id, shortName, initials };
      }),
  };
});

export const meta: Route.MetaFunction = () => [{ title: recordForWords.pageTitle }];

/** From the home screen straight to an incident: only whose it is has to be said. */
export default function RecordFor({ loaderData: { students } }: Route.ComponentProps) {
  return (
    <Page
      marginName={recordForWords.whatComesNext}
      margin={
        <>
          <MarginTitle>{recordForWords.whatComesNext}</MarginTitle>
          <p>{recordForWords.dateTimeAndObserver}</p>
        </>
      }
    >
      <h1 className="text-3xl">{recordForWords.recordAnIncident}</h1>
      <p className="mt-1.5 text-ink-2">
        {students.length > 0 ? recordForWords.ofWhom : recordForWords.youMayObserveNobody}
      </p>
      <ul className="mt-5 grid grid-cols-2 gap-3 sm:grid-cols-3 xl:grid-cols-4">
        {students.map(({ id, shortName, initials }) => (
          <li key={id}>
            <Link to={`/students/${id}/incidents/new`} className={studentButton}>
              <span aria-hidden className="display text-xl text-ink-3">
                {initials}
              </span>
              {shortName !== initials && <span>{shortName}</span>}
              {shortName === initials && <span className="sr-only">{initials}</span>}
            </Link>
          </li>
        ))}
      </ul>
    </Page>
  );
}

const studentButton =
  'flex min-h-15 items-center gap-3 rounded-box border border-edge bg-sheet px-4 py-2 hover:border-ink focus-visible:border-ink';
