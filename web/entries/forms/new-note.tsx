import { Link, useNavigate, useSearchParams } from 'react-router';
import { discreetStudent } from '~/core/goals/discreet';
import { staffForms } from '~/server/entries/forms/forms';
import { database } from '~/server/platform/db/current';
import { requireStudent, supportTeam } from '~/server/students/students';
import { idFrom, personOf } from '../../platform/http/request-person';
import { withErrors } from '../../platform/http/with-errors';
import { useScreenNow } from '../../platform/offline/connection';
import { SaveBar } from '../../platform/offline/save-bar';
import { MarginTitle, Page } from '../../platform/ui/page';
import { useSaveKey } from '../../platform/ui/use-save-key';
import { KeptDraft } from '../kept-draft';
import type { Route } from './+types/new-note';
import { NoteFields } from './note-fields';
import { OpenQuestions } from './open-questions';
import { type NoteForm, type NoteScreen, useNote } from './use-note';
import { newNoteWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, person, wall, discreet } = personOf(context);
  const found = await requireStudent(database(), actor, idFrom(params.studentId), 'observe');
  const { id, shortName, firstName } = discreet ? discreetStudent(found) : found;
  const forms = await staffForms(database(), actor);
  const team = await supportTeam(database(), found.id, actor.today);
  const screen: NoteScreen = {
    ...{ student: { id, shortName, firstName }, personId: person.id, wall },
    people: team.map((member) => ({ id: member.id, name: member.shortName })),
  };
  return {
    screen,
    forms: forms.map(({ id, version, title, hint, questions }): NoteForm => ({ id, version, title, hint, questions })),
  };
});

export const meta: Route.MetaFunction = () => [{ title: newNoteWords.pageTitle }];

export default function NewNote({ loaderData: { screen: loaded, forms } }: Route.ComponentProps) {
  const [search] = useSearchParams();
  const screen = useScreenNow(loaded);
  // Of one there is nothing to choose.
  const form = forms.find(({ id }) => id === search.get('form')) ?? (forms.length === 1 ? forms[0] : undefined);
  if (form) return <FillIn key={`${screen.student.id} ${form.id}`} screen={screen} form={form} />;
  return (
    <Page marginName={newNoteWords.about} margin={<Margin />}>
      <h1 className="text-2xl">{newNoteWords.noteOf(screen.student.shortName)}</h1>
      {forms.length === 0 ? (
        <p className="mt-4 max-w-xl text-ink-2">
          {newNoteWords.noForm}{' '}
          <Link to="/class/forms" className="link">
            {newNoteWords.makeOne}
          </Link>
        </p>
      ) : (
        <ul className="mt-5 grid max-w-2xl gap-2">
          {forms.map(({ id, title, hint }) => (
            <li key={id}>
              <Link
                to={`/students/${screen.student.id}/notes/new?form=${id}`}
                className="flex min-h-14 flex-wrap items-baseline gap-x-4 rounded-box border border-rule bg-sheet px-4 py-3 hover:bg-wash"
              >
                <span className="display text-lg">{title}</span>
                <span className="text-small text-ink-2">{hint}</span>
              </Link>
            </li>
          ))}
        </ul>
      )}
    </Page>
  );
}

const Margin = () => (
  <>
    <MarginTitle>{newNoteWords.about}</MarginTitle>
    <p className="text-small text-ink-2">{newNoteWords.noGoalNeeded}</p>
  </>
);

function FillIn({ screen, form }: { screen: NoteScreen; form: NoteForm }) {
  const navigate = useNavigate();
  const { student } = screen;
  const note = useNote(screen, form, (sent) => {
    if (sent.is === 'saved') void navigate(`/students/${student.id}/individual-report`);
  });
  useSaveKey(() => void note.save());
  return (
    <Page
      marginName={newNoteWords.howItWillRead}
      margin={
        <div className="flex flex-col lg:sticky lg:top-6 lg:h-[calc(100dvh-6.5rem)]">
          <MarginTitle about={newNoteWords.inReportOf(student.firstName)}>{newNoteWords.howItWillRead}</MarginTitle>
          <p aria-live="polite" className={note.said ? '' : 'text-ink-2'}>
            {note.said ?? newNoteWords.nothingYet}
          </p>
          <OpenQuestions note={note} />
          <SaveBar isBusy={note.isBusy} message={note.messages.form} onSave={() => void note.save()} />
        </div>
      }
    >
      <header className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-2xl">
          {form.title}
          <span className="text-ink-3">{newNoteWords.of(student.shortName)}</span>
        </h1>
        <KeptDraft kept={note.kept} onStartOver={note.startOver} />
      </header>
      {form.hint && <p className="mt-1 text-ink-2">{form.hint}</p>}
      <div className="mt-3 max-w-2xl max-lg:pb-32">
        <NoteFields screen={screen} form={form} note={note} />
      </div>
    </Page>
  );
}
