import { z } from 'zod';

/** For whom a report is shown. */
export const readerKinds = ['team', 'family', 'student', 'specialist'] as const;
export type ReaderKind = (typeof readerKinds)[number];

/** Those who read without an account, by a share link. */
export const outsideKinds = ['family', 'student', 'specialist'] as const;
export type OutsideKind = (typeof outsideKinds)[number];

export const readerWords: Record<ReaderKind, { label: string; about: string }> = {
  team: { label: 'Team', about: 'members who only read; who observes sees what they work with' },
  family: { label: 'Family', about: 'parents, guardians, relatives' },
  student: { label: 'Student', about: 'the student’s own page' },
  specialist: { label: 'Outside specialist', about: 'a physician, a therapist, an evaluator' },
};

export const outsideKindField = z.enum(outsideKinds, { error: 'Choose what kind of reader this is.' });
