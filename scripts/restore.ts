// npm run restore FILE: puts a copy back into the database in DATABASE_URL, which must be empty, and verifies every table.
import { restore } from '~/server/platform/backup/restore';
import { config } from '~/server/platform/config';

const file = process.argv[2];
try {
  if (!file) throw new Error('Say which copy: npm run restore FILE.');
  const hasGuard = config.ROW_SECURITY === 'on';
  const { tables, rows } = await restore(config.DATABASE_URL, file, { passphrase: config.BACKUP_PASSPHRASE, hasGuard });
  console.log(`Put back and verified: ${rows} rows in ${tables} tables.`);
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
}
