// npm run restore FILE: puts a copy back into the database in DATABASE_URL, which must be empty, and verifies every table. What was destroyed
// since the copy was made, by the receipts beside it, is destroyed once more.
import { dirname } from 'node:path';
import { restore } from '~/server/platform/backup/restore';
import { config } from '~/server/platform/config';
import { applyReceipts } from '~/server/student-record/receipts';

const file = process.argv[2];
try {
  if (!file) throw new Error('Say which copy: npm run restore FILE.');
  const hasGuard = config.ROW_SECURITY === 'on';
  const { tables, rows } = await restore(config.DATABASE_URL, file, { passphrase: config.BACKUP_PASSPHRASE, hasGuard });
  console.log(`Put back and verified: ${rows} rows in ${tables} tables.`);
  const gone = await applyReceipts(config.DATABASE_URL, dirname(file));
  if (gone > 0) console.log(`Destroyed once more, by the receipts beside the copy: ${gone} records of students.`);
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
}
