import { incidentSheet } from '~/core/documents/data-sheet';
import { discreetChoices } from '~/core/goals/discreet';
import { choicesOf } from '~/server/entries/incidents/choices';
import { database } from '~/server/platform/db/current';
import { requireStudent } from '~/server/students/students';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { idFrom, personOf } from '../platform/http/request-person';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/incident-sheet';
import { roomIn, sheetAnswer } from './blank-sheet';

/** A blank sheet for incidents of one student. */
export const loader = withErrorsInTurn(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'observe');
  const stored = await choicesOf(database(), student.id);
  const { shortName } = headerStudent(student, { discreet });
  const whose = { studentName: shortName, schoolName: school.name };
  return sheetAnswer(incidentSheet(discreet ? discreetChoices(stored) : stored, whose, roomIn(request, 6)), school);
});
