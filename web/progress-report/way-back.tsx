import { Link } from 'react-router';
import { wayBackWords } from './words';

/** From one progress report back to its student and the others. */
export function WayBack({ student: { id, shortName } }: { student: { id: string; shortName: string } }) {
  return (
    <p className="no-print text-small">
      <Link to={`/students/${id}`} className="text-ink-2 link">
        {shortName}
      </Link>{' '}
      ·{' '}
      <Link to={`/students/${id}/progress-report`} className="text-ink-2 link">
        {wayBackWords.progressReports}
      </Link>
    </p>
  );
}
