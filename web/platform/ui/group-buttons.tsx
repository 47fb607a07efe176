import type { RefObject } from 'react';
import { groupButtonsWords } from './words';

interface GroupButtonsProps {
  students: readonly { id: string; groups: readonly string[] }[];
  /** What holds the checkboxes of the students, each with the student's id as its value. */
  within: RefObject<HTMLElement | null>;
}

/** Chooses all students of a class group at once, besides those who are chosen already. */
export function GroupButtons({ students, within }: GroupButtonsProps) {
  const groups = [...new Set(students.flatMap((student) => student.groups))].sort();
  if (groups.length === 0) return null;
  const choose = (group: string) => {
    const ids = new Set(students.filter((student) => student.groups.includes(group)).map(({ id }) => id));
    for (const box of within.current?.querySelectorAll<HTMLInputElement>('input[type=checkbox]') ?? []) {
      if (ids.has(box.value)) box.checked = true;
    }
  };
  return (
    <p className="flex flex-wrap items-center gap-2 text-small">
      {groupButtonsWords.wholeGroup}
      {groups.map((group) => (
        <button key={group} type="button" className="btn btn-sm" onClick={() => choose(group)}>
          {group}
        </button>
      ))}
    </p>
  );
}
