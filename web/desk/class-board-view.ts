import { z } from 'zod';
import {
  boardRows,
  doneOf,
  justNow,
  minutesSince,
  mostStuckStep,
  needsSomebody,
  orderedRows,
  stepSummaries,
  waitingCells,
} from '~/core/desk/board';
import { discreetStudent } from '~/core/goals/discreet';
import { boardOf } from '~/server/desk/board';
import { stepWordsOf } from '~/server/desk/works';
import type { Database } from '~/server/platform/db/database';
import type { RequestPerson } from '../platform/http/request-person';

const asked = z.object({
  by: z.enum(['need', 'name', 'step']).catch('need'),
  step: z.uuid().nullable().catch(null),
});

/** A class board as a page shows it, with minutes counted at this moment. */
export async function classBoardView(db: Database, asker: RequestPerson, workId: string, search: URLSearchParams) {
  const { work, students, said } = await boardOf(db, asker.actor, workId);
  const words = await stepWordsOf(db, asker.actor.schoolId);
  const { by, step } = asked.parse({ by: search.get('by'), step: search.get('step') });
  const steps = work.steps.map(({ id, title }, i) => ({ id, title: `${i + 1} ${title}` }));
  const stepIds = steps.map(({ id }) => id);
  const studentIds = students.map(({ id }) => id);
  const rows = boardRows(studentIds, stepIds, said);
  const summaries = stepSummaries(rows, stepIds, said, asker.now);
  const mostStuck = mostStuckStep(summaries);
  const names = new Map(
    students.map((student) => [student.id, (asker.discreet ? discreetStudent(student) : student).firstName]),
  );
  const titles = new Map(steps.map(({ id, title }) => [id, title]));
  const nameOf = (studentId: string) => names.get(studentId) ?? '';
  const titleOf = (stepId: string) => titles.get(stepId) ?? '';
  const isShown = ({ stepId }: { stepId: string }) => step === null || stepId === step;
  return {
    work: { id: work.id, title: work.title, isMine: work.isMine, isClosed: work.closedAt !== null },
    ...{ by, step, words, allSteps: steps },
    steps: steps.filter(({ id }) => isShown({ stepId: id })),
    rows: orderedRows(rows, by).map(({ studentId, cells }) => ({
      ...{ studentId, name: nameOf(studentId) },
      cells: cells.filter(isShown).map(({ since, ...cell }) => ({
        ...{ ...cell, minutes: minutesSince(since, asker.now), needs: needsSomebody(cell) },
      })),
    })),
    waiting: waitingCells(rows).map(({ studentId, stepId, since, state, word, timesStuck, saidId }) => ({
      ...{ studentId, name: nameOf(studentId), step: titleOf(stepId) },
      ...{ state, word, timesStuck, saidId, minutes: minutesSince(since, asker.now) },
    })),
    justNow: justNow(said, asker.now).map(({ id, studentId, stepId, state }) => ({
      ...{ id, state, name: nameOf(studentId), step: titleOf(stepId) },
    })),
    stepCounts: summaries.map(({ stepId, counts }) => ({ step: titleOf(stepId), counts })),
    done: doneOf(rows),
    mostStuck: mostStuck && {
      ...{ step: titleOf(mostStuck.stepId), students: mostStuck.stuckStudents, of: rows.length },
      minutes: Math.round(mostStuck.stuckMinutes ?? 0),
    },
  };
}
