import { Link } from 'react-router';
import type { ChangeAnswer } from '../entries/change-messages';
import { useSaving } from '../platform/ui/use-saving';
import type { Route } from './+types/entry';
import { secondObserverWords } from './words';

type SecondObserverProps = Pick<
  Route.ComponentProps['loaderData'],
  'student' | 'entry' | 'partner' | 'candidates' | 'mayPair'
>;

/** Two observers of the same session: how far they agree, or who may have been the other one. */
export function SecondObserver({ student, entry, partner, candidates, mayPair }: SecondObserverProps) {
  const path = `/students/${student.id}/entries`;
  const { answer, isBusy, save } = useSaving<ChangeAnswer>(`${path}/${entry.id}`);
  const message = answer && 'messages' in answer ? Object.values(answer.messages).join(' ') : '';
  if (!partner && (candidates.length === 0 || !mayPair)) return null;
  return (
    <section className="mt-7 max-w-2xl">
      <h2 className="text-lg">
        {secondObserverWords.twoObservers}{' '}
        <span className="text-small font-normal text-ink-2">{secondObserverWords.ioa}</span>
      </h2>
      {partner ? (
        <>
          <p className="mt-1">
            {partner.agreement ? (
              <>
                {secondObserverWords.theyAgreeTo}
                <b>{partner.agreement.said}</b>
                <span className="text-small text-ink-2"> ({partner.agreement.basis})</span>
              </>
            ) : (
              secondObserverWords.thereIsNothingThatBoth
            )}
          </p>
          <p className="mt-2 text-small text-ink-2">
            <Link to={`${path}/${partner.id}`} className="link">
              {partner.about}
            </Link>
            : {partner.sentence}
          </p>
          <p className="mt-1 text-small text-ink-2">
            {secondObserverWords.inFiguresAndGraphsThe(
              partner.counts ? secondObserverWords.thisEntryCounts : secondObserverWords.theOtherEntryCounts,
            )}
          </p>
          {mayPair && (
            <button
              type="button"
              className="btn btn-sm mt-2"
              disabled={isBusy}
              onClick={() => save({ intent: 'unpair' })}
            >
              {secondObserverWords.theyWereNotOfOne}
            </button>
          )}
        </>
      ) : (
        <ul>
          {candidates.map(({ id, about, sentence }) => (
            <li key={id} className="flex flex-wrap items-center gap-3 border-b border-rule py-2">
              <span className="min-w-0 grow basis-64 text-small">
                <b>{about}</b> {sentence}
              </span>
              <button
                type="button"
                className="btn btn-sm"
                aria-label={secondObserverWords.ofTheSameSessionAbout(about)}
                disabled={isBusy}
                onClick={() => save({ intent: 'pair', otherId: id })}
              >
                {secondObserverWords.ofTheSameSession}
              </button>
            </li>
          ))}
        </ul>
      )}
      {message && (
        <p role="alert" className="mt-1 text-small font-semibold text-clay-deep">
          {message}
        </p>
      )}
    </section>
  );
}
