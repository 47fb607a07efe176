// npm run carry-out EMAIL "FOR WHOM" [FOLDER]: a school's whole data into a folder, a record for each student, while everybody goes on working;
// encrypted where BACKUP_PASSPHRASE is given. EMAIL is that of the administrator who asks for it.
import { join } from 'node:path';
import { wallTime } from '~/core/calendar/zone';
import { carryOutInput } from '~/core/student-record/arrival';
import { config } from '~/server/platform/config';
import { connect } from '~/server/platform/db/database';
import { allSchools } from '~/server/school/school';
import { carryOutSchool } from '~/server/student-record/carry-out-school';

const [email = '', why = '', named] = process.argv.slice(2);
const now = new Date();
const db = connect(config.DATABASE_URL, { poolSize: 1, longest: 0 });
try {
  const asks = carryOutInput.safeParse({ forWhom: why });
  const person = await db('people').whereRaw('lower(email) = ?', [email.toLowerCase()]).first('id');
  if (!person || !asks.success)
    throw new Error('Say who asks, and for whom: npm run carry-out EMAIL "FOR WHOM" [FOLDER].');
  let isAdmin = false;
  for (const school of await allSchools(db)) {
    const mine = await db('school_staff')
      .where({ school_id: school.id, person_id: person.id, is_admin: true })
      .first('person_id');
    if (!mine) continue;
    isAdmin = true;
    const { on: today } = wallTime(now, school.timeZone);
    const folder = named ?? join('records', `${school.id.slice(0, 8)}-${today}`);
    const asked = { personId: person.id, ...asks.data, folder, today, now, passphrase: config.BACKUP_PASSPHRASE };
    const n = await carryOutSchool(db, school, { ...asked, onFile: (path) => console.log(path) });
    console.log(`${school.name}: ${n} records in ${folder}${config.BACKUP_PASSPHRASE ? '' : ', not encrypted'}.`);
  }
  if (!isAdmin) throw new Error(`${email} administers no school.`);
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
} finally {
  await db.destroy();
}
