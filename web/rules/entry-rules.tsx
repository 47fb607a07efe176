import { Link } from 'react-router';
import { shortDate } from '~/core/calendar/iso-date';
import type { RuledEntry } from '~/server/rules/ruled-entry';
import { followUpsWords } from './words';

interface EntryRulesProps {
  ruled: RuledEntry;
  studentId: string;
  entryId: string;
  mayMake: boolean;
}

/** On an entry’s page: which rules mark it, and what is to be done because of it. */
export function EntryRules({ ruled: { marks, followUps }, studentId, entryId, mayMake }: EntryRulesProps) {
  const page = `/students/${studentId}/follow-ups`;
  if (marks.length === 0 && followUps.length === 0 && !mayMake) return null;
  return (
    <section className="no-print mt-6 max-w-2xl">
      <h2 className="text-lg">{followUpsWords.marks}</h2>
      <ul className="mt-1 text-small text-ink-2">
        {marks.map(({ word, rule, ruleId }) => (
          <li key={ruleId}>{followUpsWords.markedBy(word, rule)}</li>
        ))}
        {followUps.map(({ id, what, forName, dueOn, isDone }) => (
          <li key={id}>
            <Link to={page} className="link">
              {what}
            </Link>{' '}
            · {followUpsWords.forName(forName)} · {isDone ? followUpsWords.done : followUpsWords.due(shortDate(dueOn))}
          </li>
        ))}
      </ul>
      {mayMake && (
        <p className="mt-2">
          <Link to={`${page}?entry=${entryId}`} className="btn btn-sm">
            {followUpsWords.makeOne}
          </Link>
        </p>
      )}
    </section>
  );
}
