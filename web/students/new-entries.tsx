import { useCallback, useState } from 'react';
import { useRevalidator } from 'react-router';
import { useLive } from '../platform/ui/use-live';
import { newEntriesWords } from './words';

/** Says that somebody else has added entries of this student since the page was opened; one tap shows them. */
export function NewEntries({ studentId }: { studentId: string }) {
  const [count, setCount] = useState(0);
  const { revalidate } = useRevalidator();
  useLive(
    useCallback(
      (heard) => {
        const added = heard.filter((one) => one.studentId === studentId && one.what === 'entries' && !one.isMine);
        setCount((before) => before + added.length);
      },
      [studentId],
    ),
  );
  const show = () => {
    setCount(0);
    void revalidate();
  };
  return (
    <p role="status" className={count > 0 ? 'no-print mt-3' : 'sr-only'}>
      {count > 0 && (
        <button type="button" onClick={show} className="btn btn-sm">
          {newEntriesWords.show(count)}
        </button>
      )}
    </p>
  );
}
