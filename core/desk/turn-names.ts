interface AtTablet {
  studentId: string;
  firstName: string;
  initials: string;
}

/**
 * What each student is called on a shared tablet: by initials; where several have the same, by as much of the first name as tells them apart.
 *
 * @example turnNames([{ studentId: '1', firstName: 'Ada', initials: 'AD' }, { studentId: '2', firstName: 'Ansel', initials: 'AD' }]) // Ad D, An D
 */
export function turnNames(students: readonly AtTablet[]): { studentId: string; name: string }[] {
  return students.map((one) => {
    const alike = students.filter(({ initials }) => initials === one.initials);
    return { studentId: one.studentId, name: alike.length === 1 ? one.initials : apart(one, alike) };
  });
}

/** Two of the same first name are numbered. */
function apart({ studentId, firstName, initials }: AtTablet, alike: readonly AtTablet[]): string {
  const last = initials.slice(1);
  for (let length = 2; length <= firstName.length; length++) {
    const begins = firstName.slice(0, length);
    if (alike.every((other) => other.studentId === studentId || !other.firstName.startsWith(begins))) {
      return `${begins} ${last}`;
    }
  }
  return `${firstName} ${last} ${alike.findIndex((other) => other.studentId === studentId) + 1}`;
}
