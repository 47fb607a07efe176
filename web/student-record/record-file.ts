import { create as contentDisposition } from 'content-disposition';
import { redirect } from 'react-router';
import { fileName } from '~/core/documents/file-name';
import { carryOutInput } from '~/core/student-record/arrival';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { carryOut } from '~/server/student-record/carry-out';
import { requireStudent } from '~/server/students/students';
import { formOf } from '../platform/http/form-of';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/record-file';
import { takeOutWords } from './words';

/** The whole record of a student as an archive, for whom it is said. It is full of names: while they are hidden, its page says so. */
export const action = withErrorsInTurn(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, school, now, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'carryOut');
  const asked = carryOutInput.safeParse(Object.fromEntries(await formOf(request)));
  if (!asked.success) return new Response(takeOutWords.sayForWhom, { status: 400 });
  if (discreet) throw redirect(`/students/${student.id}/sharing/record`);
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

/** Nothing is to be had by an address alone: for whom it is made is never part of one. */
export const loader = withErrors(async () => {
  throw new NotFound(takeOutWords.onlySent);
});
