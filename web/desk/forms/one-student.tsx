import { Link, useNavigate } from 'react-router';
import { longDate } from '~/core/calendar/iso-date';
import { hasColumn } from '~/core/desk/form-answers';
import { answerWords, standsOut } from '~/core/entries/forms/form';
import { discreetGoal, discreetStudent } from '~/core/goals/discreet';
import { smallGraphShape } from '~/core/progress/graph/small-graph-shape';
import { nowText, valueSaid } from '~/core/progress/sentences';
import { formOf } from '~/server/entries/forms/forms';
import { notesOf } from '~/server/entries/forms/notes';
import { goalsOf, goalsWorkedOn } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { progressOfGoals } from '~/server/progress/progress';
import { requireStudent } from '~/server/students/students';
import { idFrom, personOf } from '../../platform/http/request-person';
import { withErrors } from '../../platform/http/with-errors';
import { MarginTitle, Page } from '../../platform/ui/page';
import { useKey } from '../../platform/ui/use-key';
import { SmallGraph } from '../../progress/small-graph';
import type { Route } from './+types/one-student';
import { answersView } from './answers-view';
import { formAnswersWords } from './words';

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const asking = personOf(context);
  const { actor, school, discreet } = asking;
  const found = await requireStudent(database(), actor, idFrom(params.studentId), 'see');
  const form = await formOf(database(), actor, idFrom(params.formId));
  const { search, searchParams } = new URL(request.url);
  const { rows } = await answersView(database(), asking, form.id, searchParams);
  const order = [...new Set(rows.map(({ studentId }) => studentId))];
  const at = order.indexOf(found.id);
  const notes = await notesOf(database(), [found.id], { formId: form.id });
  const stored = goalsWorkedOn(await goalsOf(database(), [found.id]));
  const progress = await progressOfGoals(database(), stored, { school, today: actor.today });
  const { id, shortName } = discreet ? discreetStudent(found) : found;
  return {
    ...{ student: { id, shortName }, form: { id: form.id, title: form.title, side: form.side }, search },
    before: at > 0 ? (order[at - 1] ?? null) : null,
    after: at >= 0 ? (order[at + 1] ?? null) : (order[0] ?? null),
    notes: notes.map((note) => ({
      ...{ id: note.id, about: [longDate(note.on), note.time, note.observerName].join(' · ') },
      answers: note.form.questions.filter(hasColumn).map((question) => {
        const answer = note.answers[question.id];
        const isHidden = discreet && question.kind === 'text';
        return {
          ...{ id: question.id, ask: question.ask, words: isHidden ? '' : answerWords(question, answer) },
          standsOut: standsOut(question, answer),
        };
      }),
    })),
    goals: stored.map((goal) => {
      const { id: goalId, number, shortName: name } = discreet ? discreetGoal(goal) : goal;
      const whole = progress.get(goal.id);
      return {
        ...{ id: goalId, title: `${number} · ${name}`, target: valueSaid(goal, goal.target) },
        now: whole ? nowText(goal, whole) : null,
        shape: whole && whole.points.length > 0 ? smallGraphShape(goal, whole, actor.today) : null,
      };
    }),
  };
});

export const meta: Route.MetaFunction = () => [{ title: formAnswersWords.pageTitle }];

/** One student's answers beside their goals: to confer, one student after the other. */
export default function OneStudent({ loaderData }: Route.ComponentProps) {
  const { student, form, notes, goals, before, after, search } = loaderData;
  const navigate = useNavigate();
  const pathOf = (id: string) => `/class/forms/${form.id}/students/${id}${search}`;
  useKey(['[', ']'], (event) => {
    const to = event.key === ']' ? after : before;
    if (to) void navigate(pathOf(to));
  });
  return (
    <Page
      marginName={formAnswersWords.theirGoals}
      margin={
        <>
          <MarginTitle>{formAnswersWords.theirGoals}</MarginTitle>
          {goals.length === 0 && <p className="text-ink-2">{formAnswersWords.noGoals}</p>}
          <ul className="grid gap-4">
            {goals.map(({ id, title, now, target, shape }) => (
              <li key={id}>
                <Link to={`/students/${student.id}/goals/${id}`} className="font-semibold hover:underline">
                  {title}
                </Link>
                <p className="text-small text-ink-2">{formAnswersWords.nowAndTarget(now, target)}</p>
                {shape && <SmallGraph shape={shape} />}
              </li>
            ))}
          </ul>
        </>
      }
    >
      <p className="text-small">
        <Link to={`/class/forms/${form.id}${search}`} className="text-ink-2 link">
          {form.title} · {formAnswersWords.back}
        </Link>
      </p>
      <header className="flex flex-wrap items-end justify-between gap-4">
        <h1 className="mt-1 text-3xl">
          <Link to={`/students/${student.id}`} className="hover:underline">
            {student.shortName}
          </Link>
        </h1>
        <nav aria-label={formAnswersWords.about} className="flex flex-wrap gap-2">
          <Step to={before && pathOf(before)} word={formAnswersWords.previous} cap="[" />
          <Step to={after && pathOf(after)} word={formAnswersWords.next} cap="]" />
        </nav>
      </header>
      {notes.length === 0 && <p className="mt-6 text-ink-2">{formAnswersWords.noAnswer}</p>}
      {notes.map(({ id, about, answers }) => (
        <section key={id} className="mt-5 max-w-2xl border-b border-dotted border-ink-3/50 pb-5">
          <h2 className="text-small font-semibold text-ink-2">
            {about}{' '}
            <Link to={`/students/${student.id}/notes/${id}`} className="tap font-normal link">
              {formAnswersWords.openNote}
            </Link>
          </h2>
          <dl className="mt-2 grid gap-2.5">
            {answers.map((answer) => (
              <div key={answer.id}>
                <dt className="text-small text-ink-2">{answer.ask}</dt>
                <dd className={`whitespace-pre-line ${answer.standsOut ? outClass : ''}`}>
                  {answer.words || formAnswersWords.leftOpen}
                  {answer.standsOut && <span className="sr-only"> ({formAnswersWords.standsOut})</span>}
                </dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
      {form.side === 'staff' && (
        <p className="mt-5">
          <Link to={`/students/${student.id}/notes/new?form=${form.id}`} className="btn">
            {formAnswersWords.writeNote}
          </Link>
        </p>
      )}
    </Page>
  );
}

const outClass = 'w-fit rounded-field border-2 border-clay px-1.5 font-semibold';

function Step({ to, word, cap }: { to: string | null; word: string; cap: string }) {
  if (!to) return null;
  return (
    <Link to={to} className="btn">
      {word} <kbd className="keycap">{cap}</kbd>
    </Link>
  );
}
