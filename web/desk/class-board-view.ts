import { z } from 'zod';
import { type BoardOrder, boardRows, needsSomebody, orderedRows, stepSummaries } from '~/core/desk/board';
import { discreetStudent } from '~/core/goals/discreet';
import { boardOf } from '~/server/desk/board';
import { stepWordsOf } from '~/server/desk/works';
import type { Database } from '~/server/platform/db/database';
import type { RequestPerson } from '../platform/http/request-person';

const MINUTE = 60_000;
/** What changed within this time is “just now”. */
const JUST_NOW = 15 * MINUTE;
const MOST_JUST_NOW = 5;

const asked = z.object({
  by: z.enum(['need', 'name', 'step']).catch('need'),
  step: z.uuid().nullable().catch(null),
});

/** A class board as a page shows it, with minutes counted at this moment. */
export async function classBoardView(db: Database, asker: RequestPerson, workId: string, search: URLSearchParams) {
  const { work, students, said } = await boardOf(db, asker.actor, workId);
  const words = await stepWordsOf(db, asker.actor.schoolId);
  const { by, step } = asked.parse({ by: search.get('by'), step: search.get('step') });
  const stepIds = work.steps.map(({ id }) => id);
  const rows = boardRows(
    students.map(({ id }) => id),
    stepIds,
    said,
  );
  const nameOf = new Map(
    students.map((student) => [
      student.id,
      asker.discreet ? discreetStudent({ ...student, lastName: '' }).firstName : student.firstName,
    ]),
  );
  const minutes = (since: Date | null) =>
    since ? Math.max(0, Math.floor((asker.now.getTime() - since.getTime()) / MINUTE)) : 0;
  const shownSteps = work.steps.filter(({ id }) => step === null || id === step);
  const shown = orderedRows(rows, by satisfies BoardOrder).map(({ studentId, cells }) => ({
    studentId,
    name: nameOf.get(studentId) ?? '',
    cells: cells
      .filter(({ stepId }) => shownSteps.some(({ id }) => id === stepId))
      .map(({ since, ...cell }) => ({ ...cell, minutes: minutes(since), needs: needsSomebody(cell) })),
  }));
  const waiting = orderedRows(rows, 'need').flatMap(({ studentId, cells }) =>
    cells.flatMap((cell, i) =>
      needsSomebody(cell)
        ? [{ ...cell, studentId, name: nameOf.get(studentId) ?? '', at: i + 1, minutes: minutes(cell.since) }]
        : [],
    ),
  );
  const titleOf = new Map(work.steps.map(({ id, title }, i) => [id, `${i + 1} ${title}`]));
  const justNow = said
    .filter(({ at, state }) => asker.now.getTime() - at.getTime() < JUST_NOW && (state === 'done' || state === 'atIt'))
    .slice(-MOST_JUST_NOW)
    .reverse()
    .map(({ id, studentId, stepId, state }) => ({
      ...{ id, state, name: nameOf.get(studentId) ?? '', step: titleOf.get(stepId) ?? '' },
    }));
  const summaries = stepSummaries(rows, stepIds, said, asker.now);
  const worst = summaries.toSorted((a, b) => b.stuckStudents - a.stuckStudents)[0];
  return {
    work: { id: work.id, title: work.title, isMine: work.isMine, isClosed: work.closedAt !== null },
    ...{ by, step, rows: shown, justNow, words },
    steps: shownSteps.map(({ id, title }) => ({ id, title: titleOf.get(id) ?? title })),
    allSteps: work.steps.map(({ id, title }) => ({ id, title: titleOf.get(id) ?? title })),
    waiting: waiting.map(({ studentId, name, at, state, word, minutes: since, timesStuck, saidId, stepId }) => ({
      ...{ studentId, name, state, word, minutes: since, timesStuck, saidId },
      step: titleOf.get(stepId) ?? String(at),
    })),
    stepCounts: summaries.map(({ stepId, counts }) => ({ step: titleOf.get(stepId) ?? '', counts })),
    done: {
      count: rows.reduce((sum, { cells }) => sum + cells.filter(({ state }) => state === 'done').length, 0),
      of: rows.length * stepIds.length,
    },
    mostStuck:
      worst && worst.stuckStudents > 0
        ? {
            step: titleOf.get(worst.stepId) ?? '',
            students: worst.stuckStudents,
            of: rows.length,
            minutes: Math.round(worst.stuckMinutes ?? 0),
          }
        : null,
  };
}
