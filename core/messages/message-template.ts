import { z } from 'zod';
import { defined } from '../defined';
import type { MessageKind } from './message';

/** What may be filled into a message template. */
export const templateFields = {
  student: { about: 'the student’s short name', isChilds: true },
  goal: { about: 'number and name of the goal', isChilds: true },
  sentence: { about: 'what the entry says', isChilds: true },
  percentage: { about: 'its figure', isChilds: true },
  note: { about: 'the words beside it', isChilds: true },
  observer: { about: 'who observed', isChilds: false },
  day: { about: 'the day of the entry', isChilds: false },
  rule: { about: 'the name of the rule', isChilds: false },
  followUp: { about: 'what is to be done', isChilds: true },
  entries: { about: 'all entries of the day or week, a line each', isChilds: true },
  reader: { about: 'to whom it goes', isChilds: false },
  sender: { about: 'the case manager', isChilds: false },
  school: { about: 'the school’s name', isChilds: false },
  link: { about: 'the share link', isChilds: false },
  stop: { about: 'the link that stops these messages', isChilds: false },
} as const;
export type TemplateField = keyof typeof templateFields;

export interface MessageTemplate {
  subject: string;
  body: string;
}

/** What fills the fields; null for what this entry or this reader does not have. */
export type FieldValues = Partial<Record<TemplateField, string | null>>;

const FIELD = /\{(\w+)\}/g;
const isField = (name: string): name is TemplateField => Object.hasOwn(templateFields, name);

/** The fields that stand in a text, each once; also those that are none. */
export function fieldsIn(text: string): string[] {
  return [...new Set([...text.matchAll(FIELD)].map(([, name]) => defined(name)))];
}

/**
 * A template with its fields filled in. What has no value leaves no trace, nor a line that would be empty without it.
 *
 * @example fillIn('{student}: {percentage}', { student: 'Ada E.', percentage: '75%' }) // 'Ada E.: 75%'
 */
export function fillIn(text: string, values: FieldValues): string {
  return text
    .split('\n')
    .flatMap((line) => {
      const filled = line.replace(FIELD, (whole, name: string) => (isField(name) ? (values[name] ?? '') : whole));
      return line.trim() !== '' && filled.trim() === '' ? [] : [filled.trimEnd()];
    })
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

export interface TemplateWarning {
  field: 'subject' | 'body';
  text: string;
}

/**
 * What somebody should know before a template is used: fields that there are not, fields that would be empty, a child’s data in
 * the subject (which is read over shoulders, and on locked screens), and a body without the way to stop.
 *
 * @param values  of a real entry, for its reader
 */
export function templateWarnings({ subject, body }: MessageTemplate, values: FieldValues): TemplateWarning[] {
  const warnings: TemplateWarning[] = [];
  for (const [field, text] of Object.entries({ subject, body }) as ['subject' | 'body', string][]) {
    for (const name of fieldsIn(text)) {
      if (!isField(name)) warnings.push({ field, text: `{${name}} is no field: it would be sent as it stands.` });
      else if (!values[name]) warnings.push({ field, text: `{${name}} would be empty here.` });
      if (field === 'subject' && isField(name) && templateFields[name].isChilds) {
        warnings.push({ field, text: `{${name}} would put this child’s data into the subject line.` });
      }
    }
  }
  if (!fieldsIn(body).includes('stop'))
    warnings.push({ field: 'body', text: 'Without {stop} it is stopped by its header only.' });
  return warnings;
}

const line = (what: string, longest: number) =>
  z
    .string({ error: `Write the ${what}.` })
    .trim()
    .min(1, { error: `Write the ${what}.` })
    .max(longest, { error: `Keep the ${what} to ${longest} characters.` });

export const templateInput = z.object({
  // A line break would begin another header.
  subject: line('subject', 150).refine((text) => !/[\r\n]/.test(text), { error: 'A subject is one line.' }),
  body: line('body', 5000),
});

const closing = '\n\n{sender}, {school}\n\nStop these emails: {stop}';

/** What goes with a report that is shared at once. */
export const sharedNowTemplate: MessageTemplate = {
  subject: 'A report is open for you',
  body: `Hello {reader},\n\nyou can read {student}’s report here, with every entry as it comes in:\n\n{link}${closing}`,
};

/** The templates until the school writes its own: no child’s data in a subject line. */
export const usualTemplates: Record<MessageKind, MessageTemplate> = {
  entry: {
    subject: 'A new entry in the report you follow',
    body: `Hello {reader},\n\nhere is a new note about {student} from {day}:\n\n{goal}\n{sentence}\n{note}\n\nThe whole report: {link}${closing}`,
  },
  digest: {
    subject: 'What is new in the report you follow',
    body: `Hello {reader},\n\nhere is what is new in {student}’s report:\n\n{entries}\n\nThe whole report: {link}${closing}`,
  },
  byHand: {
    subject: 'About the report you follow',
    body: `Hello {reader},\n\n\n\nThe report: {link}${closing}`,
  },
  invitation: {
    subject: 'You are asked to join a support team',
    body: 'Hello {reader},\n\n{sender} asks you to join the support team of a student at {school}. This link works once:\n\n{link}',
  },
  locked: {
    subject: 'A share link has been locked',
    body: 'Hello {reader},\n\na wrong passcode was typed too often for a share link to {student}’s report. The link is locked. You can unlock it here:\n\n{link}',
  },
  issued: {
    subject: 'A progress report is ready for you',
    body: `Hello {reader},\n\n{student}’s progress report is ready. Read it here:\n\n{link}${closing}`,
  },
  rule: {
    subject: 'A rule was fulfilled',
    body: `Hello {reader},\n\n“{rule}” was fulfilled for {student}:\n\n{day}\n{goal}\n{sentence}\n\nLook at it here: {link}${closing}`,
  },
  reminder: {
    subject: 'A follow-up is due today',
    body: `Hello {reader},\n\ntoday is the day for this, about {student}:\n\n{followUp}\n\nLook at it here: {link}${closing}`,
  },
};
