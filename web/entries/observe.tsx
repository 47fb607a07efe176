import { database } from '~/server/platform/db/current';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/observe';
import { observing } from './load';
import { ObservingPage } from './observing-page';
import { observeWords } from './words';

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const studentId = idFrom(params.studentId);
  const loaded = await observing(database(), personOf(context), [{ studentId, goalIds: null }]);
  const first = new URL(request.url).searchParams.get('goal');
  const students = loaded.students.map((student) => ({
    ...student,
    goals: student.goals.toSorted((a, b) => Number(b.id === first) - Number(a.id === first)),
  }));
  return { ...loaded, students, studentId };
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: observeWords.pageTitle(loaderData?.students[0]?.shortName ?? '') },
];

export default function Observe({ loaderData }: Route.ComponentProps) {
  const { studentId, students, personId } = loaderData;
  // Another student is another session: nothing of the last one may stay.
  return (
    <ObservingPage
      key={studentId}
      {...loaderData}
      title={observeWords.observing(students[0]?.shortName ?? '')}
      draftKey={`${personId} ${studentId}`}
      doneTo={`/students/${studentId}`}
    />
  );
}
