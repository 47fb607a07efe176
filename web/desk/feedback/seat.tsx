import { givingOf } from '~/server/desk/feedback';
import { database } from '~/server/platform/db/current';
import type { Route } from './+types/seat';
import { withErrorsInSeat } from './at-seat';
import { Give } from './give';
import { giveWords, seatWords } from './words';

export const loader = withErrorsInSeat(async (_: Route.LoaderArgs, seat) => {
  if (!seat) return { seat: null };
  const { studentId, firstName, presentationId, seatId } = seat;
  return { seat: { studentId, firstName, giving: await givingOf(database(), studentId, presentationId, seatId) } };
});

export const meta: Route.MetaFunction = () => [
  { title: giveWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

/** What one of a class says to those who present, on any device with the class's code. */
export default function SeatPage({ loaderData: { seat } }: Route.ComponentProps) {
  return (
    <main className="mx-auto max-w-xl px-5 py-6 text-lg sm:py-10">
      {seat ? (
        <>
          <p className="text-base text-ink-2">{seatWords.youAre(seat.firstName)}</p>
          <Give key={seat.giving.id} studentId={seat.studentId} giving={seat.giving} place="seat" />
        </>
      ) : (
        <h1 className="text-3xl">{seatWords.scanTheCode}</h1>
      )}
    </main>
  );
}
