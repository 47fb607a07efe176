import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { dataDiagram } from './data-diagram';
import { head, rooms } from './rooms';

const fresh = freshDatabase();

it('docs/data.md shows the tables as they are; npm run docs:data draws them anew', async () => {
  const drawn = head + (await dataDiagram(fresh.db, rooms));
  expect(readFileSync('docs/data.md', 'utf8')).toBe(drawn);
  expect(drawn).toContain('entries }o--o| goal_measures : "goal_id, measure_version"');
  expect(drawn).not.toContain('Since then');
});
