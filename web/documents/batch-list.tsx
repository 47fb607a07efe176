import { useEffect } from 'react';
import { Link, useRevalidator } from 'react-router';
import { BATCH_DAYS } from '~/core/progress-report/input';
import { counted, listed } from '~/core/words/counting';
import type { ShownBatch } from './batches-shown';
import { batchListWords } from './words';

/** The files for several students: what is being made, and what can be fetched. */
export function BatchList({ batches }: { batches: readonly ShownBatch[] }) {
  const isMaking = batches.some(({ state }) => state === 'waiting' || state === 'making');
  const { revalidate, state } = useRevalidator();
  useEffect(() => {
    if (!isMaking || state !== 'idle') return;
    const timer = setTimeout(revalidate, 1000);
    return () => clearTimeout(timer);
  }, [isMaking, state, revalidate]);
  return (
    <ul aria-label={batchListWords.filesForGroups} aria-live="polite" className="mt-6">
      {batches.map((batch) => (
        <li key={batch.id} className="border-b border-dotted border-ink-3/50 py-3 text-small">
          <p className="font-semibold">
            {batch.label}, {batchListWords.of[batch.what]}
            {batch.isShort && batchListWords.short}
          </p>
          <p className="text-ink-2">{batch.at}</p>
          <Standing batch={batch} />
          {batch.leftOut.length > 0 && batch.state !== 'over' && (
            <p className="text-ink-2">{batchListWords.leftOutNoLongerYours(listed(batch.leftOut))}</p>
          )}
        </li>
      ))}
    </ul>
  );
}

function Standing({ batch }: { batch: ShownBatch }) {
  if (batch.state === 'over') return <p className="text-ink-2">{batchListWords.itCouldBeFetchedFor(BATCH_DAYS)}</p>;
  if (batch.state === 'failed') return <p className="font-semibold text-clay-deep">{batch.problem}</p>;
  if (batch.state === 'ready') {
    return (
      <Link to={`/batches/${batch.id}`} reloadDocument className="font-semibold link">
        {batchListWords.file(
          batch.isPacked ? batchListWords.zip : batchListWords.pdf,
          counted(batch.of - batch.leftOut.length, 'student', 'students'),
          counted(batch.pages ?? 0, 'page', 'pages'),
        )}
      </Link>
    );
  }
  return (
    <>
      <progress
        className="progress mt-1 w-full text-fern"
        value={batch.done}
        max={batch.of}
        aria-label={batchListWords.beingMade(batch.label)}
      />
      <p>{batchListWords.ofMade(batch.done, batch.of, batch.problem ?? batchListWords.youMayLeaveThisPage)}</p>
    </>
  );
}
