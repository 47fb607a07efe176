import { ownNoteInput } from '~/core/entries/forms/note-input';
import { LARGEST_WITH_PHOTOGRAPHS } from '~/core/entries/photograph';
import { saveOwnNote } from '~/server/desk/own-notes';
import { database } from '~/server/platform/db/current';
import type { AboutRoute } from '../../platform/http/routes-known';
import { onlySent, takes } from '../takes';

/** Photographs come along. */
export const handle: AboutRoute = { largestBody: LARGEST_WITH_PHOTOGRAPHS };

/** Takes what a student answers about themselves at their desk. */
export const action = takes(ownNoteInput, (desk, said) =>
  saveOwnNote(database(), desk, said, { wall: desk.wall, now: desk.now }),
);

export const loader = onlySent;
