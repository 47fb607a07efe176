import { create as contentDisposition } from 'content-disposition';
import { redirect } from 'react-router';
import { fileName } from '~/core/documents/file-name';
import { carryOutInput } from '~/core/student-record/arrival';
import { database } from '~/server/platform/db/current';
import { carryOut } from '~/server/student-record/carry-out';
import { requireStudent } from '~/server/students/students';
import { formOf } from '../platform/http/form-of';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/record-file';

/** The whole record of a student as an archive, for whom it is said. It is full of names: while they are hidden, its page says so. */
export const action = withErrorsInTurn(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, school, now, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'carryOut');
  const asked = carryOutInput.safeParse(Object.fromEntries(await formOf(request)));
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

/** What is asked for by its address is on its page. */
export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const student = await requireStudent(database(), personOf(context).actor, idFrom(params.studentId), 'carryOut');
  throw redirect(`/students/${student.id}/sharing/record`);
});
