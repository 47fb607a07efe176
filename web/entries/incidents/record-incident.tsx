import { Repeat2 } from 'lucide-react';
import { useCallback, useRef, useState } from 'react';
import { Link, useNavigate, useRevalidator } from 'react-router';
import { v4 as newId } from 'uuid';
import type { Catching } from '~/core/entries/waiting';
import { database } from '~/server/platform/db/current';
import { may } from '~/server/students/rights';
import { studentFor } from '~/server/students/students';
import { isRunning } from '../../measures/clock';
import { useNow } from '../../measures/use-now';
import { answering } from '../../platform/http/answering';
import { askerOf, idFrom } from '../../platform/http/asker';
import { draftStore } from '../../platform/offline/device-store';
import { SaveBar } from '../../platform/offline/save-bar';
import { useWaiting } from '../../platform/offline/waiting';
import { MarginTitle, Page } from '../../platform/ui/page';
import { useKey } from '../../platform/ui/use-key';
import { KeptDraft } from '../kept-draft';
import { useKeptDraft } from '../use-kept-draft';
import { useWallClock } from '../use-wall-clock';
import type { Route } from './+types/record-incident';
import {
  changedNote,
  draftSentence,
  emptyNote,
  isNoteTouched,
  type NoteDraft,
  nextNote,
  noteInputFrom,
} from './incident-draft';
import { NoteFields } from './incident-fields';
import { catchingOf } from './recording';
import { catchingWords } from './words';

export const loader = answering(async ({ params, context }: Route.LoaderArgs) => {
  const asker = askerOf(context);
  const student = await studentFor(database(), asker.actor, idFrom(params.studentId), 'observe');
  return { catching: await catchingOf(database(), asker, student), maySetUp: may(student, 'setUp') };
});

// The tab says nothing of what is written, nor of whom.
export const meta: Route.MetaFunction = () => [{ title: 'Note · Gentle Margin' }];

export default function CatchNote({ loaderData }: Route.ComponentProps) {
  const { catching, maySetUp } = loaderData;
  const { student, offered } = catching;
  if (!offered.behavior.some(({ abc }) => abc)) return <NothingToChoose student={student} maySetUp={maySetUp} />;
  // Another student is another note: nothing of the last one may stay.
  return <Catch key={student.id} catching={catching} />;
}

/** Before there is a behavior to note. */
export function NothingToChoose({ student, maySetUp }: { student: Catching['student']; maySetUp: boolean }) {
  return (
    <Page marginName="Why" margin={<MarginTitle>Nothing to note yet</MarginTitle>}>
      <h1 className="text-3xl">{student.shortName}</h1>
      <p className="mt-4 max-w-xl text-ink-2">
        No target behavior is set up for {student.firstName}.{' '}
        {maySetUp ? 'It takes a minute, and begins from the school’s lists.' : 'The case manager sets them up.'}
      </p>
      {maySetUp && (
        <p className="mt-4">
          <Link to={`/students/${student.id}/behavior/set-up`} className="btn btn-primary h-11">
            Set up what is noted
          </Link>
        </p>
      )}
    </Page>
  );
}

function Catch({ catching }: { catching: Catching }) {
  const { student, personId, last, discreet } = catching;
  const words = catchingWords(discreet);
  const [draft, setDraft] = useState(() => emptyNote(catching, newId(), catching.wall));
  const timeNow = useWallClock(catching.wall);
  const draftKey = `${personId} ${student.id} note`;
  const bringBack = useCallback((found: NoteDraft) => setDraft(found), []);
  const kept = useKeptDraft(draftKey, draft, isNoteTouched, bringBack);
  const change = (changes: Partial<NoteDraft>) =>
    setDraft((before) => changedNote(catching, before, changes, timeNow()));
  const { save, isBusy, messages } = useSaveNote(catching, draft, setDraft, draftKey);
  useKey('enter', () => {
    // On a control that has the focus, Enter is that control's.
    if (!document.activeElement?.closest('button, a, summary')) save({ another: false });
  });
  const now = useNow(isRunning(draft.clock));
  const sentence = draftSentence(catching, draft, now);
  return (
    <Page
      marginName={words.reads}
      margin={
        <div className="flex flex-col lg:sticky lg:top-6 lg:h-[calc(100dvh-6.5rem)]">
          <MarginTitle>{words.reads}</MarginTitle>
          <p aria-live="polite" className={sentence ? '' : 'text-ink-2'}>
            {sentence ?? words.begin}
          </p>
          {draft.note.trim() !== '' && !discreet && <p className="mt-1.5 text-ink-2">{draft.note}</p>}
          <SaveBar
            isBusy={isBusy}
            message={messages.form}
            onSave={() => save({ another: false })}
            onSaveAndAnother={() => save({ another: true })}
          />
        </div>
      }
    >
      <header className="mb-1 flex items-center gap-x-3 gap-y-1 sm:flex-wrap sm:gap-x-4">
        <h1 className="text-xl max-sm:grow sm:text-2xl">
          {words.title} <span className="text-ink-3">{student.shortName}</span>
        </h1>
        {last && (
          <button type="button" onClick={() => change(last)} className="btn btn-sm h-9 pointer-coarse:h-11">
            <Repeat2 size={16} aria-hidden /> <span className="max-sm:sr-only">{words.again}</span>
          </button>
        )}
        <KeptDraft kept={kept} onStartOver={() => setDraft(emptyNote(catching, newId(), timeNow()))} />
      </header>
      <div className="max-lg:pb-24">
        <NoteFields catching={catching} draft={draft} messages={messages} onChange={change} mayBeSecond />
      </div>
    </Page>
  );
}

/** Saves the note; without the server it waits on this device. */
function useSaveNote(catching: Catching, draft: NoteDraft, setDraft: (draft: NoteDraft) => void, draftKey: string) {
  const { student, personId } = catching;
  const waiting = useWaiting();
  const navigate = useNavigate();
  const { revalidate } = useRevalidator();
  const [messages, setMessages] = useState<Record<string, string>>({});
  const [isBusy, setBusy] = useState(false);
  const isSaving = useRef(false);
  const save = async ({ another }: { another: boolean }) => {
    const note = noteInputFrom(draft, Date.now());
    if (note.behaviors.length === 0 && !note.others.some(({ kind }) => kind === 'behavior')) {
      return setMessages({ behaviors: 'Say what happened.', form: 'One thing is missing: what happened.' });
    }
    if (isSaving.current) return;
    isSaving.current = true;
    setBusy(true);
    const { id, shortName } = student;
    const [sent] = await waiting.save([
      {
        kind: 'note',
        id: newId(),
        personId,
        student: { id, shortName },
        note,
        catching,
        savedAt: Date.now(),
        problem: null,
      },
    ]);
    isSaving.current = false;
    setBusy(false);
    if (sent?.is === 'refused') {
      const form = 'It is not saved yet: something needs another look.';
      return setMessages({ form, ...sent.messages });
    }
    setMessages({});
    await draftStore.forget(draftKey).catch(() => {});
    if (sent?.is === 'saved' && !another) return navigate(`/students/${student.id}/behavior`);
    if (sent?.is === 'saved') revalidate();
    setDraft(another ? nextNote(catching, draft, newId()) : emptyNote(catching, newId(), catching.wall));
  };
  return { save, isBusy, messages };
}
