import { z } from 'zod';
import { defined } from '~/core/defined';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import type { Actor } from '../school/school';
import type { StudentAccess } from '../students/access';

const personBegunRow = z.object({ opened: z.boolean(), recorded: z.boolean() });

/** What somebody who is new on a team has done already. */
export type PersonBegun = z.infer<typeof personBegunRow>;

/** Whether who asks has ever opened the page of one of these students, and recorded anything of them. */
export async function personBegun(
  db: Database,
  { personId }: Actor,
  studentIds: readonly StudentAccess<'see'>[],
): Promise<PersonBegun> {
  const [begun] = await rowsOf(
    db,
    personBegunRow,
    `select exists (select from access_log
                     where student_id = any(:studentIds) and person_id = :personId and how = 'opened') as opened,
            exists (select from entries where student_id = any(:studentIds) and recorded_by = :personId) as recorded`,
    { personId, studentIds: [...studentIds] },
  );
  return defined(begun);
}
