import { createWriteStream, existsSync } from 'node:fs';
import { mkdir, rename } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { z } from 'zod';
import { fileName } from '~/core/documents/file-name';
import { encrypted } from '../platform/backup/backup';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { requireSchoolAdmin } from '../school/administrators';
import type { School } from '../school/school';
import { schoolInForm } from '../school/set-up';
import { grant } from '../students/access';
import { staffOfSchool } from '../students/staff';
import { carryOut } from './carry-out';

interface Wanted {
  /** The administrator who asks for it: it stands in each student's access log. */
  personId: string;
  forWhom: string;
  folder: string;
  today: string;
  now: Date;
  passphrase?: string | undefined;
  /** Told of each file that is written. */
  onFile?: (path: string) => void;
}

const studentRow = z.object({ id: z.string(), name: z.string() });

/**
 * Carries a whole school's data out into a folder: how it is set up, who works there, and the whole record of each student, those who have
 * left too, one after the other, so that no more than one is in memory. What is there already is passed over: begun anew, it goes on.
 *
 * @param db  the database, as its owner: nobody who signs in sees all of a school
 * @returns how many records the folder holds
 * @throws NotFound for somebody who does not administer the school
 */
export async function carryOutSchool(
  db: Database,
  school: School,
  { personId, forWhom, folder, today, now, passphrase, onFile }: Wanted,
): Promise<number> {
  const admin = await requireSchoolAdmin(db, { personId, schoolId: school.id, today });
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const write = async (name: string, make: () => Promise<Buffer>) => {
    const path = join(folder, `${name}${passphrase ? '.age' : ''}`);
    if (existsSync(path)) return;
    const plain = Readable.from([await make()]);
    const part = `${path}.part`;
    await pipeline(passphrase ? await encrypted(plain, passphrase) : plain, createWriteStream(part, { mode: 0o600 }));
    await rename(part, path);
    onFile?.(path);
  };
  await write('school.json', async () => {
    const { id, name, timeZone } = school;
    const staff = (await staffOfSchool(db, admin)).map(({ sessions: _, lastSeen: __, ...one }) => one);
    const said = { format: 'gentle-margin school', version: 1, madeAt: now.toISOString(), id, name, timeZone };
    return Buffer.from(JSON.stringify({ ...said, setUp: await schoolInForm(db, admin), staff }, null, 1));
  });
  const students = await rowsOf(
    db,
    studentRow,
    `select id, concat_ws(' ', last_name, first_name) as name from students where school_id = :schoolId
      order by last_name, first_name, id`,
    { schoolId: school.id },
  );
  for (const { id, name } of students) {
    await write(`${fileName(name, id.slice(0, 8), today)}.zip`, () =>
      carryOut(db, grant(id, 'whole school'), { personId, forWhom }, { school, now }),
    );
  }
  return students.length;
}
