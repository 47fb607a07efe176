// npm run db:dump: writes a small database with data, as the newest migration has it, to tests/database/dumps/. It is made once for each
// migration, before the next one is written: from it that one is tested.
import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync, writeFileSync } from 'node:fs';
import { connect } from '~/server/platform/db/database';
import { migrate, migrations } from '~/server/platform/db/migrate';
import { dropDatabase, makeDatabase, newName, urlOf } from '~/tests/database/databases';
import { fillSmall } from '~/tests/database/small-data';

const ROOF = '/usr/lib/postgresql';
const version = readdirSync(ROOF).sort((a, b) => Number(b) - Number(a))[0] ?? '';
const newest = Object.keys(migrations).at(-1) as string;
const file = `tests/database/dumps/${newest}.sql`;
if (existsSync(file)) throw new Error(`${file} is there already: what it was is what the next migration begins from.`);

const name = newName('dump');
await makeDatabase(name);
// Without its guard, which is put up anew by whoever migrates.
await migrate(urlOf(name), { hasGuard: false });
const db = connect(urlOf(name));
try {
  await fillSmall(db);
  const options = ['--inserts', '--no-owner', '--no-privileges', '--no-comments', urlOf(name)];
  const dump = execFileSync(`${ROOF}/${version}/bin/pg_dump`, options, {
    encoding: 'utf8',
    maxBuffer: 64 * 1024 * 1024,
  });
  // What only psql understands, and what belongs to the server it came from.
  const lines = dump
    .split('\n')
    .filter((line) => !/^(\\|--|SET transaction_timeout|CREATE EXTENSION|SELECT pg_catalog.set_config)/.test(line));
  writeFileSync(
    file,
    `${lines
      .join('\n')
      .replace(/\n{3,}/g, '\n\n')
      .trim()}\n`,
  );
} finally {
  await db.destroy();
  await dropDatabase(name);
}
