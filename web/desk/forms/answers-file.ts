import { isLadder, placesOf } from '~/core/desk/form-answers';
import { fileName } from '~/core/documents/file-name';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import { recordAccess } from '~/server/sharing/access-log';
import { idFrom, personOf } from '../../platform/http/request-person';
import { tableFile, tableFormat } from '../../platform/http/table-file';
import { withErrors } from '../../platform/http/with-errors';
import type { Route } from './+types/answers-file';
import { answersView } from './answers-view';
import { formAnswersWords } from './words';

/**
 * The answers of a class for a gradebook, as comma-separated text or as a spreadsheet: a row for each student, in words, and in numbers where
 * they are some. Who has not answered has a row without answers.
 */
export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const asking = personOf(context);
  const { actor, now, discreet } = asking;
  // The file is made of names.
  if (discreet) throw new NotFound(formAnswersWords.noSuchFile);
  const { searchParams } = new URL(request.url);
  const { form, columns, rows, today } = await answersView(database(), asking, idFrom(params.formId), searchParams);
  const what = formAnswersWords.file(tableFormat(request));
  for (const studentId of new Set(rows.map((row) => row.studentId))) {
    await recordAccess(database(), { personId: actor.personId }, { studentId, what, how: 'exported' }, now);
  }
  const asks = columns.map(({ id, ask }) => ({ ask, question: form.questions.find((one) => one.id === id) }));
  const ladderOf = (at: number) => {
    const question = asks[at]?.question;
    return question && isLadder(question) ? question : undefined;
  };
  // A ladder has two columns: its words, and its place as a number.
  const fields = asks.flatMap(({ ask }, at) => {
    const ladder = ladderOf(at);
    return ladder ? [ask, `${ask} (1 to ${placesOf(ladder)})`] : [ask];
  });
  const cells = rows.map(({ name, answered, times }) => [
    ...[name, answered?.on ?? '', answered?.time ?? '', answered?.by ?? '', times],
    ...asks.flatMap((_, at) => {
      const cell = answered?.cells[at];
      if (ladderOf(at)) return [cell?.words ?? '', cell?.value ?? ''];
      return [cell?.value ?? cell?.words ?? ''];
    }),
  ]);
  const head = ['student', 'date', 'time', 'answered by', 'answers', ...fields];
  const name = fileName(form.title, 'answers', today);
  return tableFile(request, { name, sheet: form.title }, head, cells);
});
