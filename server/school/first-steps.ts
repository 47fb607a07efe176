import { z } from 'zod';
import { defined } from '~/core/defined';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import type { SchoolAdmin } from './administrators';

const schoolBegunRow = z.object({
  closures: z.boolean(),
  locations: z.boolean(),
  students: z.boolean(),
  staff: z.boolean(),
});

/** What of a new school is there already. */
export type SchoolBegun = z.infer<typeof schoolBegunRow>;

/** How far a school has been set up: whether it has closures, locations, a student, and somebody besides the one who asks. */
export async function schoolBegun(db: Database, { schoolId, personId }: SchoolAdmin): Promise<SchoolBegun> {
  const [begun] = await rowsOf(
    db,
    schoolBegunRow,
    `select exists (select from closures where school_id = :schoolId) as closures,
            exists (select from locations where school_id = :schoolId) as locations,
            exists (select from students where school_id = :schoolId) as students,
            exists (select from school_staff where school_id = :schoolId and person_id <> :personId) as staff`,
    { schoolId, personId },
  );
  return defined(begun);
}
