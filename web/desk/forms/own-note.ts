import { ownNoteInput } from '~/core/entries/forms/note-input';
import { saveOwnNote } from '~/server/desk/own-notes';
import { database } from '~/server/platform/db/current';
import { onlySent, takes } from '../takes';

/** Takes what a student answers about themselves at their desk. */
export const action = takes(ownNoteInput, (desk, said) =>
  saveOwnNote(database(), desk, said, { wall: desk.wall, now: desk.now }),
);

export const loader = onlySent;
