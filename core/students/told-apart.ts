interface Namesake {
  id: string;
  /** As they are called where they are to be told apart. */
  name: string;
  grade: string;
  groups: readonly string[];
  /** The school's number of them; empty or null where there is none. */
  number: string | null;
}

/**
 * What tells students apart who are called the same: their grade, else a group, else the school's number, the first that differs from all
 * others of that name. Those whose name nobody else has are not in it.
 *
 * @returns words by the student's id
 * @example toldApart([{ id: 'a', name: 'Ada E.', grade: '4', groups: [], number: null },
 *   { id: 'b', name: 'Ada E.', grade: '5', groups: [], number: null }]).get('a') // '4'
 */
export function toldApart(students: readonly Namesake[]): Map<string, string> {
  const byName = new Map<string, Namesake[]>();
  for (const one of students) {
    const key = one.name.trim().toLocaleLowerCase();
    byName.set(key, [...(byName.get(key) ?? []), one]);
  }
  const words = new Map<string, string>();
  for (const same of byName.values()) {
    if (same.length < 2) continue;
    const ways = [
      ({ grade }: Namesake) => grade,
      ({ groups }: Namesake) => groups.join(', '),
      ({ number }: Namesake) => (number ? `No. ${number}` : ''),
    ];
    const differs = (way: (one: Namesake) => string) => new Set(same.map(way)).size === same.length;
    // Where no one thing tells them all apart, all of them together do, as far as anything does.
    const way =
      ways.find(differs) ??
      ((one: Namesake) =>
        ways
          .map((of) => of(one))
          .filter(Boolean)
          .join(', '));
    for (const one of same) words.set(one.id, way(one));
  }
  return words;
}
