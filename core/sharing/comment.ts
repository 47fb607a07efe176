import { z } from 'zod';
import type { IsoDate } from '../calendar/iso-date';
import type { ReaderKind } from './reader-kind';

/** An answer to an entry, or a reflection of the student, which may stand for itself. */
export interface Comment {
  id: string;
  /** Null for a reflection that stands for itself. */
  entryId: string | null;
  kind: 'comment' | 'reflection';
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
  /** Of the team: which comment it answers, or that it is for everyone; what is not said is an answer to the newest. */
  answers: z.union([z.uuid(), z.literal('everyone')]).optional(),
  text: z
    .string({ error: 'Write something first.' })
    .trim()
    .min(1, { error: 'Write something first.' })
    .max(LONGEST_COMMENT, { error: 'Keep it to 2,000 characters.' }),
});
export type CommentInput = z.infer<typeof commentInput>;

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
  for (const { id, by, hidden } of comments) {
    if (by.linkId === null || hidden) continue;
    last.delete(by.linkId);
    last.set(by.linkId, { id, name: by.name });
  }
  return [...last.values()].reverse();
}

/** Who may add something: specialists from outside read only. */
export const canAnswer = (kind: ReaderKind): boolean => kind !== 'specialist';

/** What somebody adds is: the student’s words are a reflection. */
export const kindSaidBy = (kind: ReaderKind): Comment['kind'] => (kind === 'student' ? 'reflection' : 'comment');

/**
 * What a reader is shown of what was said: the team all of it, with what was hidden still readable; a reader from outside what
 * the team said to them or to everyone, and what they said themselves; the family also the student’s reflections. Members of the team are
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
    (reader.kind === 'family' && kind === 'reflection');
  return comments
    .filter((comment) => comment.hidden === null && mayRead(comment))
    .map((comment) =>
      comment.by.kind === 'team' && !reader.namesAdults
        ? { ...comment, by: { ...comment.by, name: 'The team' } }
        : comment,
    );
}
