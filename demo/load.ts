import { addDays } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { correctObservation, withdrawObservation } from '~/server/entries/change';
import { observationsOf } from '~/server/entries/read';
import { hashPassword } from '~/server/people/passwords';
import type { Database } from '~/server/platform/db/database';
import { requireStudent } from '~/server/students/students';
import { answerSomeEntries } from './answers';
import { setClassForms } from './class-forms';
import { setClassStack } from './class-stack';
import { setClassWork } from './class-work';
import { generateDemo } from './generate';
import { setRules } from './rules';
import { demoPassword, demoPin, timeZone } from './school';

/** Fills an empty, migrated database with the demo, as it stands at an instant. */
export async function loadDemo(db: Database, now: Date): Promise<void> {
  const rows = generateDemo(wallTime(now, timeZone).on, await hashPassword(demoPassword));
  await db.transaction(async (trx) => {
    for (const [table, content] of rows) {
      if (content.length > 0) await trx.batchInsert(table, content, 500);
    }
    await trx('people').update({ pin_hash: await hashPassword(demoPin), pin_digits: demoPin.length });
    await changeSomeEntries(trx, now);
    await answerSomeEntries(trx, now);
    await setClassWork(trx, now);
    await setClassForms(trx, now);
    await setClassStack(trx, now);
    await setRules(trx, now);
  });
}

/** A corrected entry and a withdrawn one, made the way people make them. */
async function changeSomeEntries(db: Database, now: Date): Promise<void> {
  const wall = wallTime(now, timeZone);
  const ansel = await db('students').where({ first_name: 'Ansel' }).first('id', 'school_id');
  const manager = await db('people').where({ demo_order: 1 }).first('id');
  const actor = { personId: manager!.id, schoolId: ansel!.school_id, today: wall.on };
  const entries = await observationsOf(db, [(await requireStudent(db, actor, ansel!.id, 'see')).id], { limit: 40 });
  const old = entries.filter((entry) => entry.on < addDays(wall.on, -1) && entry.outcome.data !== null);
  const [toCorrect, toWithdraw] = [old[0], old[3]];
  const data = toCorrect?.outcome.data;
  const trials = data && 'trials' in data ? data.trials : [];
  if (!toCorrect || !toWithdraw) return;
  await correctObservation(
    db,
    actor,
    { studentId: ansel!.id, entryId: toCorrect.id },
    {
      ...toCorrect,
      outcome: {
        data: { trials: [...trials.slice(0, -1), 'incorrect'] },
        reason: null,
      },
      note: 'The last one did not come after all.',
      why: 'Checked against my paper notes.',
    },
    { wall, now },
  );
  await withdrawObservation(
    db,
    actor,
    { studentId: ansel!.id, entryId: toWithdraw.id },
    { version: 1, why: 'This was another student’s session.' },
    now,
  );
}
