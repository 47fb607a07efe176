import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { rowTypes } from './row-types';

const fresh = freshDatabase();

it('server/platform/db/tables.ts says what stands in the tables; npm run db:types writes it anew', async () => {
  const written = await rowTypes(fresh.url);
  expect(readFileSync('server/platform/db/tables.ts', 'utf8')).toBe(written);
  // What a check lets in, what may be missing, and what has a default.
  expect(written).toContain("  role: 'caseManager' | 'educator' | 'paraprofessional' | 'specialist';");
  expect(written).toContain('  until_date: string | null;');
  expect(written).toMatch(/students: Table<StudentsRow, 'archived_at' \| 'sourced_id' \| 'undone_at'>/);
  await fresh.db.raw('alter table students add column shoe_size int');
  expect(await rowTypes(fresh.url)).toContain('  shoe_size: number | null;');
});
