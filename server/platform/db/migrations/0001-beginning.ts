import type { Knex } from 'knex';
import { behavior } from './0001-beginning/behavior';
import { entries } from './0001-beginning/entries';
import { goals } from './0001-beginning/goals';
import { lasting } from './0001-beginning/lasting';
import { messages } from './0001-beginning/messages';
import { people } from './0001-beginning/people';
import { reports } from './0001-beginning/reports';
import { school } from './0001-beginning/school';
import { sharing } from './0001-beginning/sharing';
import { students } from './0001-beginning/students';

/** All tables, room by room, each before those that point at it. */
export async function up(db: Knex): Promise<void> {
  await db.raw('create extension if not exists btree_gist');
  for (const room of [people, school, students, goals, behavior, entries, sharing, reports, messages, lasting]) {
    await db.raw(room);
  }
}
