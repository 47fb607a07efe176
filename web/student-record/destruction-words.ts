import { RECENT_DAYS, WAIT_DAYS } from '~/core/student-record/destruction';
import { counted } from '~/core/words/counting';

interface IdentityWords {
  grade: string;
  number: string | null;
  groups: readonly string[];
  firstYear: number | null;
  lastYear: number | null;
  entries: number;
  goals: number;
}

/** `destructions.tsx` */
export const destructionWords = {
  pageTitle: 'Destroying records · Gentle Margin',
  title: 'Destroying records',
  about:
    'A record that is not needed any more is destroyed when a family asks for it, or by the school’s own rule (34 CFR 300.624). It cannot be brought back.',
  ask: 'Ask for it',
  aboutAsk: `Another administrator confirms it; without one it is done after ${WAIT_DAYS} days. Until then it can be taken back.`,
  student: 'Student who has left',
  choose: 'Choose',
  nobodyLeft: 'Nobody is archived. Only a student who has left can be chosen.',
  reason: 'Why',
  toldOn: 'The family was told on',
  toldHow: 'How',
  send: 'Ask for it to be destroyed',
  tell: 'What the family is told',
  told: [
    'Which record is not needed any more to provide educational services, and that it will be destroyed.',
    'What goes: everything that was observed, goals and plans, reports, comments, photographs, and who read them.',
    'What is kept without limit: the name, the grade, and the years at the school (34 CFR 300.624(b)).',
    'That they may need it later, for example for social security benefits, and can have all of it before.',
  ],
  open: 'Asked for',
  none: 'Nothing is to be destroyed.',
  line: (by: string, day: string, reason: string) => `${by}, ${day}: ${reason}`,
  family: (day: string, how: string) => `Family told on ${day}: ${how}`,
  waits: (day: string) => `Done as soon as another administrator confirms it, or on ${day}.`,
  confirmed: (by: string) => `Confirmed by ${by}. It is done within minutes.`,
  held: 'Somebody has asked to see this record, or to have it amended: it waits until that is answered.',
  confirm: 'Confirm',
  confirmTitle: (name: string) => `Destroy the record of ${name}?`,
  confirmAbout:
    'Everything that is held of this student goes, now, and cannot be brought back. Name, grade and years are kept.',
  confirmNow: 'Destroy it',
  keep: 'Keep it',
  takeBack: 'Take it back',
  takeBackOf: (name: string) => `Take it back: ${name}`,
  asked: 'It is asked for.',
  isConfirmed: 'It is confirmed.',
  takenBack: 'It is taken back: nothing is destroyed.',
  done: 'Destroyed',
  receipt: (grade: string, years: string) => `${grade}, ${years}`,
  doneSaid: (day: string, rows: string, by: string) => `Destroyed on ${day}, ${rows}; ${by}`,
  askedBy: (asked: string, confirmed: string | null) =>
    confirmed ? `asked for by ${asked}, confirmed by ${confirmed}` : `asked for by ${asked}, after ${WAIT_DAYS} days`,
  /** Who it is: nobody is chosen by their name alone. */
  identity: ({ grade, number, groups, firstYear, lastYear, entries, goals }: IdentityWords) =>
    [
      grade,
      number && `No. ${number}`,
      groups.join(', '),
      firstYear && (firstYear === lastYear || lastYear === null ? `${firstYear}` : `${firstYear}–${lastYear}`),
      counted(entries, 'entry', 'entries'),
      counted(goals, 'goal', 'goals'),
    ]
      .filter(Boolean)
      .join(' · '),
  recent: (n: number) =>
    `${counted(n, 'entry was', 'entries were')} recorded in the last ${RECENT_DAYS} days. Is this the right student?`,
  typeName: (name: string | null) =>
    name ? `Type the name to confirm: ${name}` : 'Type the student’s full name to confirm',
  hidden: 'A student',
};
