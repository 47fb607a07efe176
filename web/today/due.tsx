import { Link } from 'react-router';
import { MOST_IN_ROUND } from '~/core/entries/rounds/round-input';
import { counted } from '~/core/words/counting';
import { todayWords } from './words';

/** A student with the goals that are due. */
export interface DueStudent {
  studentId: string;
  name: string;
  due: { id: string; number: string; shortName: string }[];
}

interface Part {
  part: string;
  from: string;
  to: string;
  students: DueStudent[];
}

/** Who is in a part of the day: first those with something due. */
export function PartBody({ part }: { part: Part }) {
  const due = part.students.filter((student) => student.due.length > 0);
  const others = part.students.filter((student) => student.due.length === 0);
  return (
    <div className="mt-3">
      <p className="flex items-baseline gap-3">
        <span className="display text-lg">{part.part}</span>
        <span className="text-small text-ink-2">
          {part.from}–{part.to}
        </span>
      </p>
      <DueList students={due} />
      {others.length > 0 && (
        <p className="mt-1 text-small text-ink-2">
          {due.length === 0 ? todayWords.nothingIsDue : todayWords.alsoHere}
          {others.map(({ studentId, name }, i) => (
            <span key={studentId}>
              {i > 0 && ', '}
              <Link to={`/students/${studentId}/observe`} className="inline-block py-1 link">
                {name}
              </Link>
            </span>
          ))}
        </p>
      )}
    </div>
  );
}

export function GoThrough({ students }: { students: DueStudent[] }) {
  const goals = students.flatMap(({ due }) => due.map(({ id }) => id));
  if (goals.length === 0) return <p className="mt-1 text-ink-2">{todayWords.nothingIsDueHere}</p>;
  const what = todayWords.dueFor(todayWords.goalsAre(goals.length), counted(students.length, 'student', 'students'));
  return (
    <div className="mt-2 mb-1 flex flex-wrap items-center justify-between gap-3">
      <p>{what}.</p>
      {goals.length > 1 && (
        <Link
          to={`/rounds/once?goals=${goals.slice(0, MOST_IN_ROUND).join('.')}`}
          className="btn btn-primary px-5 text-base"
        >
          {todayWords.goThroughThem}
        </Link>
      )}
    </div>
  );
}

export function DueList({ students }: { students: DueStudent[] }) {
  return (
    <ul>
      {students.map(({ studentId, name, due }) => (
        <li
          key={studentId}
          className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-2.5 last:border-b-0"
        >
          <Link to={`/students/${studentId}`} className="flex tap items-center display w-32 text-lg hover:underline">
            {name}
          </Link>
          <span className="min-w-0 grow basis-60 text-small text-ink-2">
            {due.map(({ number, shortName }) => `${number} ${shortName}`).join(' · ')}
          </span>
          <Link
            to={`/students/${studentId}/observe?goal=${due[0]?.id ?? ''}`}
            aria-label={todayWords.observeNamed(name)}
            className="btn"
          >
            {todayWords.observe}
          </Link>
        </li>
      ))}
    </ul>
  );
}
