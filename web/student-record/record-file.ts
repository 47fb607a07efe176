import { create as contentDisposition } from 'content-disposition';
import { redirect } from 'react-router';
import { fileName } from '~/core/documents/file-name';
import { carryOutInput } from '~/core/student-record/arrival';
import { database } from '~/server/platform/db/current';
import { carryOut } from '~/server/student-record/carry-out';
import { requireStudent } from '~/server/students/students';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { idFrom, personOf } from '../platform/http/request-person';
import type { Route } from './+types/record-file';

/** The whole record of a student as an archive, for whom it is said. It is full of names: while they are hidden, its page says so. */
export const loader = withErrorsInTurn(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, now, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'carryOut');
  const asked = carryOutInput.safeParse({ forWhom: params.forWhom });
  if (discreet || !asked.success) throw redirect(`/students/${student.id}/sharing/record`);
  const by = { personId: actor.personId, ...asked.data };
  const content = await carryOut(database(), student.id, by, { school, now });
  return new Response(new Uint8Array(content), {
    headers: {
      'Content-Type': 'application/zip',
      'Content-Disposition': contentDisposition(`${fileName(student.shortName, 'record', actor.today)}.zip`),
      'Cache-Control': 'no-store',
    },
  });
});
