import { roundsOf } from '~/server/entries/rounds/rounds';
import { sealingKey } from '~/server/people/sealing';
import { database } from '~/server/platform/db/current';
import { daysOnDevices } from '~/server/school/school';
import { can } from '~/server/students/rights';
import { studentsOf } from '~/server/students/students';
import { preferencesOf } from '../platform/http/cookies';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { type KeptList, OBSERVED_VIEWS } from '../platform/offline/kept-list';
import type { Route } from './+types/kept';

/**
 * With what a device locks what it keeps of whoever is signed in, and for how long; with `?pages` also which pages it keeps for when
 * there is no network.
 */
export const loader = withErrors(async ({ context, request }: Route.LoaderArgs) => {
  const { actor, lockMinutes } = personOf(context);
  const { keepsPages } = await preferencesOf(request);
  const [seal, days] = await Promise.all([sealingKey(database()), daysOnDevices(database(), actor.schoolId)]);
  const isKept = keepsPages && days > 0;
  const list: KeptList = {
    ...{ personId: actor.personId, seal, days: isKept ? days : 0, pages: [] },
    mayShowAtOnce: lockMinutes === null,
  };
  if (isKept && new URL(request.url).searchParams.has('pages')) {
    const [students, rounds] = await Promise.all([studentsOf(database(), actor), roundsOf(database(), actor)]);
    const seen = students.filter((student) => can(student, 'see'));
    list.pages = [
      ...['/', '/students', '/rounds', '/incidents/new'],
      ...rounds.map(({ id }) => `/rounds/${id}`),
      ...seen.flatMap((student) => [
        `/students/${student.id}`,
        ...(can(student, 'observe') ? OBSERVED_VIEWS.map((view) => `/students/${student.id}/${view}`) : []),
      ]),
    ];
  }
  return Response.json(list);
});
