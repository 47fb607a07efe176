import { z } from 'zod';
import { shortDate } from '~/core/calendar/iso-date';
import { discreetStudent } from '~/core/goals/discreet';
import { isToldOfPast, rule, ruleScope } from '~/core/rules/rule';
import { counted } from '~/core/words/counting';
import { goalsOf } from '~/server/goals/goals';
import { newestEntriesByIds } from '~/server/individual-report/entries-said';
import { database } from '~/server/platform/db/current';
import { previewOf } from '~/server/rules/preview';
import { studentsOf } from '~/server/students/students';
import { shownEntries } from '../entries/shown-entry';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/preview-rule';

/** Of those that would have fulfilled a rule as many are shown. */
const SHOWN = 12;

const asked = z.object({ rule, scope: ruleScope });

function parsed(text: string | null) {
  try {
    return asked.safeParse(JSON.parse(text ?? ''));
  } catch (error) {
    if (error instanceof SyntaxError) return asked.safeParse(null);
    throw error;
  }
}

/** What a rule that is being written would have done; null while it is not complete. */
export const loader = withErrors(async ({ request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const read = parsed(new URL(request.url).searchParams.get('asked'));
  if (!read.success) return { preview: null };
  const { from, students, looked, found } = await previewOf(database(), actor, read.data, school.calendar);
  const seen = await studentsOf(database(), actor);
  const shown = found.slice(0, SHOWN);
  const behind = seen.filter(({ id }) => shown.some(({ studentId }) => studentId === id));
  const goals = await goalsOf(
    database(),
    behind.map(({ id }) => id),
  );
  const entries = await newestEntriesByIds(
    database(),
    behind.map(({ id }) => id),
    goals,
    { ids: shown.map(({ entryId }) => entryId), discreet },
  );
  return {
    preview: {
      from: shortDate(from),
      hasStudents: students > 0,
      isTold: isToldOfPast(read.data.rule.when.trigger),
      found: found.length,
      looked: counted(looked, 'entry', 'entries'),
      entries: shownEntries(entries, goals, { discreet }),
      names: Object.fromEntries(
        behind.map((student) => [student.id, (discreet ? discreetStudent(student) : student).shortName]),
      ),
    },
  };
});
