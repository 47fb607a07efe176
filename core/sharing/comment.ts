import { z } from 'zod';
import type { IsoDate } from '../calendar/iso-date';
import type { ReaderKind } from './reader-kind';

/**
 * An answer; a reflection of the student; what a family states beside what they contest; what they ask to have amended; and what was decided
 * on that.
 */
export const commentKinds = ['comment', 'reflection', 'statement', 'amendment', 'decision'] as const;
export type CommentKind = (typeof commentKinds)[number];

/** What was decided on what a family asked to have amended. */
export const outcomes = ['amended', 'refused'] as const;
export type DecidedOutcome = (typeof outcomes)[number];

/** Something said of an entry or of an issued report; a reflection of the student may stand for itself. */
export interface Comment {
  id: string;
  /** Null for what is said of an issued report, and for a reflection that stands for itself. */
  entryId: string | null;
  kind: CommentKind;
  /** Of a decision. */
  outcome: DecidedOutcome | null;
  /** The request that is a decision’s, or that this comment answers; null where it is for everyone. */
  answers: string | null;
  /** Who said it: a member of the team, or a reader from outside by their share link. */
  by: { kind: ReaderKind; name: string; linkId: string | null };
  /** The reader from outside whom an answer of the team is for; null for all who read the entry. */
  to: { name: string; linkId: string } | null;
  on: IsoDate;
  time: string;
  text: string;
  /** Taken out of sight by a case manager, with the reason. */
  hidden: { by: string; reason: string } | null;
}

/** Threads stay small: what needs more words needs a conversation. */
export const MOST_IN_THREAD = 12;
export const LONGEST_COMMENT = 2000;

export const commentInput = z.object({
  id: z.uuid(),
  entryId: z.uuid().nullable(),
  /** What of an issued report is said; `entryId` is null then. */
  reportId: z.uuid().nullable().default(null),
  /** Of a family: an answer, a statement that stays, or something to be amended. */
  kind: z.enum(['comment', 'statement', 'amendment']).default('comment'),
  /** Of the team: which comment it answers, or that it is for everyone; what is not said is an answer to the newest. */
  answers: z.union([z.uuid(), z.literal('everyone')]).optional(),
  text: z
    .string({ error: 'Write something first.' })
    .trim()
    .min(1, { error: 'Write something first.' })
    .max(LONGEST_COMMENT, { error: 'Keep it to 2,000 characters.' }),
});
export type CommentInput = z.input<typeof commentInput>;

export const decisionInput = z.object({
  id: z.uuid(),
  /** The request. */
  answers: z.uuid(),
  outcome: z.enum(outcomes, { error: 'Choose what was decided.' }),
  text: z
    .string({ error: 'Say why: the family reads it.' })
    .trim()
    .min(1, { error: 'Say why: the family reads it.' })
    .max(LONGEST_COMMENT, { error: 'Keep it to 2,000 characters.' }),
});
export type DecisionInput = z.infer<typeof decisionInput>;

export const hidingInput = z.object({
  id: z.uuid(),
  reason: z
    .string({ error: 'Say why, for whoever asks later.' })
    .trim()
    .min(1, { error: 'Say why, for whoever asks later.' })
    .max(300, { error: 'Keep the reason to 300 characters.' }),
});
export type HidingInput = z.infer<typeof hidingInput>;

/** Those from outside who said something in a thread, whom the team may answer: the one who spoke last first. */
export function answerable(comments: readonly Comment[]): { id: string; name: string }[] {
  const last = new Map<string, { id: string; name: string }>();
  for (const { id, by, hidden, kind } of comments) {
    if (by.linkId === null || hidden || kind === 'statement' || kind === 'amendment') continue;
    last.delete(by.linkId);
    last.set(by.linkId, { id, name: by.name });
  }
  return [...last.values()].reverse();
}

/** Who may add something: specialists from outside read only. */
export const canAnswer = (kind: ReaderKind): boolean => kind !== 'specialist';

/** What somebody adds is: the student’s words are a reflection; only a family states, and asks for amendments. */
export function kindSaidBy(reader: ReaderKind, wanted: CommentInput['kind'] = 'comment'): CommentKind {
  if (reader === 'student') return 'reflection';
  return reader === 'family' ? wanted : 'comment';
}

/** Requests that nobody has decided on. */
export function undecided(comments: readonly Comment[]): Comment[] {
  const decided = new Set(comments.flatMap(({ kind, answers }) => (kind === 'decision' && answers ? [answers] : [])));
  return comments.filter(({ id, kind }) => kind === 'amendment' && !decided.has(id));
}

/** What a comment is called where it is no plain answer: “a statement”. */
export const kindWords: Record<CommentKind, string | null> = {
  comment: null,
  reflection: 'a reflection',
  statement: 'a statement',
  amendment: 'asks for an amendment',
  decision: 'the decision',
};

export const outcomeWords: Record<DecidedOutcome, string> = {
  amended: 'Amended as asked.',
  refused:
    'Not amended. The family may ask the school for a hearing, and may add a statement that stays with it wherever it is shown.',
};

/** What somebody said, as it is read: a decision begins with what was decided. */
export const commentSaid = ({ outcome, text }: Pick<Comment, 'outcome' | 'text'>): string =>
  outcome === null ? text : `${outcomeWords[outcome]} ${text}`;

/**
 * What a reader is shown of what was said: the team all of it, with what was hidden still readable; a reader from outside what
 * the team said to them or to everyone, and what they said themselves; the family also the student’s reflections. A statement stays with what
 * it is about, for every reader. Members of the team are
 * “the team” to whom is not shown who observed.
 */
export function commentsSeenBy(
  comments: readonly Comment[],
  reader: { kind: ReaderKind; linkId: string | null; namesAdults: boolean },
): Comment[] {
  if (reader.kind === 'team') return [...comments];
  const mayRead = ({ by, to, kind }: Comment) =>
    (by.kind === 'team' && (to === null || to.linkId === reader.linkId)) ||
    by.linkId === reader.linkId ||
    kind === 'statement' ||
    (reader.kind === 'family' && kind === 'reflection');
  return comments
    .filter((comment) => comment.hidden === null && mayRead(comment))
    .map((comment) =>
      comment.by.kind === 'team' && !reader.namesAdults
        ? { ...comment, by: { ...comment.by, name: 'The team' } }
        : comment,
    );
}
