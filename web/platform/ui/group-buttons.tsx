import { type RefObject, useState } from 'react';
import { groupButtonsWords } from './words';

interface GroupButtonsProps {
  students: readonly { id: string; groups: readonly string[] }[];
  /** What holds the checkboxes of the students, each with the student's id as its value. */
  within: RefObject<HTMLElement | null>;
  /** Hears that others are chosen. */
  onChoose?: () => void;
}

/** The values of the checkboxes that are ticked within something; `recount` is to hear of each change. */
export function useChosen(within: RefObject<HTMLElement | null>) {
  const [count, setCount] = useState(0);
  const chosen = () =>
    [...(within.current?.querySelectorAll<HTMLInputElement>('input[type=checkbox]:checked') ?? [])].map(
      ({ value }) => value,
    );
  return { chosen, count, recount: () => setCount(chosen().length) };
}

/** Chooses all students of a class group at once, and nobody else. */
export function GroupButtons({ students, within, onChoose }: GroupButtonsProps) {
  const groups = [...new Set(students.flatMap((student) => student.groups))].sort();
  if (groups.length === 0) return null;
  const choose = (group: string) => {
    const ids = new Set(students.filter((student) => student.groups.includes(group)).map(({ id }) => id));
    for (const box of within.current?.querySelectorAll<HTMLInputElement>('input[type=checkbox]') ?? []) {
      box.checked = ids.has(box.value);
    }
    onChoose?.();
  };
  return (
    <p className="flex flex-wrap items-center gap-2 text-small">
      {groups.map((group) => (
        <button key={group} type="button" className="btn btn-sm" onClick={() => choose(group)}>
          {groupButtonsWords.all(group)}
        </button>
      ))}
    </p>
  );
}
