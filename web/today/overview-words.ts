import { DUE_DAYS, PLAN_DAYS, STRETCH_DAYS } from '~/core/today/overview';
import { counted } from '~/core/words/counting';

/** `overview.tsx` */
export const overviewWords = {
  pageTitle: 'Overview · Gentle Margin',
  title: 'Overview',
  about: 'What stands open, by case manager: counts and dates, and nothing of what was observed.',
  byManager: 'What stands open, by case manager',
  manager: 'Case manager',
  nobody: 'No case manager',
  students: 'Students',
  goals: 'Goals',
  quiet: 'Nothing written down for longer than planned',
  quietSaid: (n: number, longest: number, never: number) =>
    n === 0
      ? 'none'
      : `${n}, up to ${counted(longest, 'school day', 'school days')}${never > 0 ? `; ${never} never` : ''}`,
  due: `Reports due in ${DUE_DAYS} days`,
  late: 'Reports late',
  issued: 'Reports issued',
  ending: `Plans that end in ${PLAN_DAYS} days`,
  without: 'Without a plan',
  agreement: 'With a second observer',
  fidelity: 'Support said',
  none: '–',
  noStudents: 'There is no student on the roster yet.',
  howCounted: 'How it is counted',
  counted: [
    'Longer than planned: as the Team page and Today say it, in school days; never, since the goal began.',
    'Late is a reporting period that is over without an issued report, in the plan that holds.',
    `With a second observer, support said: of the sessions of the last ${STRETCH_DAYS} days that count; what students enter themselves is not among them. Of a support with steps it is said which were done. Common practice asks for a second observer in a fifth of the sessions.`,
  ],
  school: 'The school',
  accounts: (without: number, all: string) => `${without} of ${all} without a code beside the password`,
  toPeople: 'People',
  backup: (day: string) => `Newest nightly copy: ${day}`,
  noBackupYet: 'No nightly copy was made yet.',
  backupFailed: (why: string) => `The last nightly copy failed. ${why}`,
  cardWords: ({ wrong, most }: { wrong: number; most: number }) =>
    `${wrong} wrong desk card codes were typed in the last hour.${wrong >= most ? ' New addresses cannot sign in with codes until this slows down; QR codes still work.' : ''}`,
  noNightly: 'No nightly copies are made: BACKUP_FOLDER is not set.',
};
