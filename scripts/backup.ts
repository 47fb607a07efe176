// npm run backup [PATH]: a copy of the whole database, verified by sums; encrypted where BACKUP_PASSPHRASE is given. Without a path it goes
// into BACKUP_FOLDER, else into `backups`, with the moment in its name.
import { dirname, join } from 'node:path';
import { backUp } from '~/server/platform/backup/backup';
import { config } from '~/server/platform/config';
import { connect } from '~/server/platform/db/database';
import { keepReceipts } from '~/server/student-record/receipts';

const now = new Date();
const named = `gentle-margin-${now.toISOString().slice(0, 19).replaceAll(':', '')}`;
const path = process.argv[2]?.replace(/\.dump(\.age)?$/, '') ?? join(config.BACKUP_FOLDER ?? 'backups', named);
try {
  const file = await backUp(config.DATABASE_URL, { path, passphrase: config.BACKUP_PASSPHRASE, now });
  const db = connect(config.DATABASE_URL, { poolSize: 1 });
  await keepReceipts(db, dirname(file)).finally(() => db.destroy());
  console.log(
    `The copy is ${file}, with its sums beside it${config.BACKUP_PASSPHRASE ? '' : '; it is not encrypted'}.`,
  );
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
}
