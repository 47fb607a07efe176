import { Link, redirect } from 'react-router';
import { givingOf } from '~/server/desk/feedback';
import { database } from '~/server/platform/db/current';
import { idFrom } from '../../platform/http/request-person';
import { withErrorsAtDesk } from '../at-desk';
import { deskWords } from '../words';
import type { Route } from './+types/give-at-desk';
import { Give } from './give';
import { giveWords } from './words';

export const loader = withErrorsAtDesk(async ({ params }: Route.LoaderArgs, desk) => {
  if (!desk) throw redirect('/desk');
  const { studentId } = desk;
  return { studentId, giving: await givingOf(database(), studentId, idFrom(params.presentationId)) };
});

export const meta: Route.MetaFunction = () => [
  { title: giveWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

/** What a student says to those who present, at their own desk. */
export default function GiveAtDesk({ loaderData: { studentId, giving } }: Route.ComponentProps) {
  return (
    <main className="mx-auto max-w-xl px-5 py-6 text-lg sm:py-10">
      <Link to="/desk" className="tap text-base text-ink-2 link">
        {deskWords.backToDesk}
      </Link>
      <Give key={giving.id} studentId={studentId} giving={giving} place="desk" />
    </main>
  );
}
