import { existsSync } from 'node:fs';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { connect, type Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { destroyStudent } from './destroy';

/** Beside copies of the database: what was destroyed is not in it, and is destroyed again in an older copy that is put back. */
export const RECEIPTS_FILE = 'destroyed.json';

const receipt = z.object({
  ...{ id: z.uuid(), school_id: z.uuid(), student_id: z.uuid(), reason: z.string(), told_on: z.string() },
  ...{
    told_how: z.string(),
    asked_by_name: z.string(),
    asked_at: z.string(),
    confirmed_by_name: z.string().nullable(),
  },
  ...{ confirmed_at: z.string().nullable(), done_at: z.string(), kept_name: z.string(), kept_grade: z.string() },
  ...{ kept_years: z.string(), rows: z.record(z.string(), z.number()) },
});
type Receipt = z.infer<typeof receipt>;
const columns = Object.keys(receipt.shape).join(', ');

async function inFile(folder: string): Promise<Receipt[]> {
  const path = join(folder, RECEIPTS_FILE);
  return existsSync(path) ? z.array(receipt).parse(JSON.parse(await readFile(path, 'utf8'))) : [];
}

/** Writes the receipts of a database beside its copies; those that stand there already stay. */
export async function keepReceipts(db: Database, folder: string): Promise<void> {
  const found = await rowsOf(
    db,
    z.object({ receipt }),
    `select to_jsonb(d) as receipt from (select ${columns} from destructions where done_at is not null) d`,
  );
  const known = new Map((await inFile(folder)).map((one) => [one.id, one]));
  const before = known.size;
  for (const one of found) known.set(one.receipt.id, one.receipt);
  if (known.size === before) return;
  await mkdir(folder, { recursive: true });
  const path = join(folder, RECEIPTS_FILE);
  await writeFile(`${path}.new`, JSON.stringify([...known.values()], null, 1), { mode: 0o600 });
  await rename(`${path}.new`, path);
}

/**
 * Destroys in a database that was put back what had been destroyed since its copy was made, by the receipts beside the copy, and
 * puts the receipts in.
 *
 * @returns how many records are gone once more
 */
export async function applyReceipts(url: string, folder: string): Promise<number> {
  const receipts = await inFile(folder);
  if (receipts.length === 0) return 0;
  const owner = connect(url, { poolSize: 1, longest: 0 });
  try {
    return await owner.transaction(async (trx) => {
      let gone = 0;
      for (const one of receipts) {
        const school = await trx('schools').where({ id: one.school_id }).first('id');
        if (!school) continue;
        if (await trx('students').where({ id: one.student_id }).first('id')) {
          await destroyStudent(trx, one.student_id);
          gone++;
        }
        // What was asked for when the copy was made is done now.
        const open = await trx('destructions').where({ student_id: one.student_id, taken_back_at: null }).first('id');
        const from = 'from jsonb_populate_record(null::destructions, cast(:receipt as jsonb))';
        await trx.raw(
          open
            ? `update destructions set (${columns}) = (select ${columns} ${from}) where id = :open`
            : `insert into destructions (${columns}) select ${columns} ${from}`,
          { receipt: JSON.stringify(one), open: open?.id ?? '' },
        );
      }
      return gone;
    });
  } finally {
    await owner.destroy();
  }
}
