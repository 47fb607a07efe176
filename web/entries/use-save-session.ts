import { type Dispatch, useCallback, useRef, useState } from 'react';
import { useNavigate, useRevalidator } from 'react-router';
import { v4 as newId } from 'uuid';
import { entryField } from '~/core/entries/observation';
import type { ObservedGoal, WaitingSession } from '~/core/entries/waiting';
import { measureOf } from '~/core/measures/measure';
import { openNamed } from '~/core/measures/open-parts';
import { counted, listed } from '~/core/words/counting';
import { draftStore } from '../platform/offline/device-store';
import type { Sent } from '../platform/offline/send';
import { useWaiting } from '../platform/offline/waiting';
import { useSay } from '../platform/ui/toasts';
import { type DraftChange, inputFrom, isMarked, type SessionDraft, untouched } from './draft';
import type { Photographs } from './evidence/use-photographs';
import type { ObservedStudent, Observing } from './load';
import { observingPageWords } from './words';

interface SaveProps extends Pick<Observing, 'personId' | 'choices'> {
  students: ObservedStudent[];
  /** Under which what is marked is kept on the device. */
  draftKey: string;
  /** Where to go when everything is saved. */
  doneTo: string;
}

/** Whom several sessions were saved for, and whose wait on this device, in one sentence each. */
export function severalSaved(
  sessions: readonly Pick<WaitingSession, 'student' | 'session'>[],
  results: readonly Pick<Sent, 'is'>[],
): string {
  const of = (is: Sent['is']) => sessions.filter((_, at) => results[at]?.is === is);
  const names = (some: ReturnType<typeof of>) => listed(some.map(({ student }) => student.shortName));
  const [saved, waits] = [of('saved'), of('waits')];
  const goals = saved.reduce((sum, { session }) => sum + session.entries.length, 0);
  return [
    saved.length > 0 && observingPageWords.savedFor(names(saved), counted(goals, 'goal', 'goals')),
    waits.length > 0 && observingPageWords.onThisDeviceUntilIt(names(waits)),
  ]
    .filter(Boolean)
    .join(' ');
}

/**
 * What stands at each goal that asks for all of its parts, and has some open.
 *
 * @param asked  what was asked about before; it is added to
 */
function openWords(goals: readonly ObservedGoal[], draft: SessionDraft, asked: Set<string>): Record<string, string> {
  return Object.fromEntries(
    goals.flatMap(({ id, measure }) => {
      const data = draft.goals[id]?.data ?? null;
      const open = data === null ? [] : measureOf(measure).required(data);
      const about = `${id} ${open.join()}`;
      if (open.length === 0 || asked.has(about)) return [];
      asked.add(about);
      return [[entryField(id), observingPageWords.stillOpenSaveAgain(openNamed(open))]];
    }),
  );
}

/** Leads to the first goal at which something is missing: the digits go there, and what is open of it is in sight. */
function leadTo(goals: readonly ObservedGoal[], missing: Record<string, string>, change: Dispatch<DraftChange>): void {
  const first = goals.find(({ id }) => entryField(id) in missing);
  if (!first) return;
  change({ type: 'activate', goalId: first.id });
  // Once its card is drawn as the active one.
  setTimeout(() => {
    const heading = document.getElementById(`goal-${first.id}`);
    const open = heading?.closest('section')?.querySelector('[data-open]');
    (open ?? heading)?.scrollIntoView({ block: 'center' });
  });
}

/** In milliseconds: a tap that follows so soon was meant for the question before it, and was not an answer to it. */
const TOO_SOON = 1000;

/** Saves what is marked, student by student: each is one session. What cannot be sent now waits on the device. */
export function useSaveSession(
  props: SaveProps,
  draft: SessionDraft,
  change: Dispatch<DraftChange>,
  { of: photographsOf, forget: forgetPhotographs }: Photographs,
) {
  const { students, choices, personId, draftKey, doneTo } = props;
  const waiting = useWaiting();
  const say = useSay();
  const navigate = useNavigate();
  const { revalidate } = useRevalidator();
  const [messages, setMessages] = useState<Record<string, string>>({});
  const [isBusy, setBusy] = useState(false);
  const isSaving = useRef(false);
  const asked = useRef(new Set<string>());
  const askedAt = useRef(0);
  const save = useCallback(
    async ({ another }: { another: boolean }) => {
      if (Date.now() - askedAt.current < TOO_SOON) return;
      const all = students.flatMap((student) => student.goals);
      const loose = all.filter(({ id }) => {
        const goal = draft.goals[id];
        if (!goal || isMarked(goal)) return false;
        return goal.note.trim() !== '' || photographsOf(id).length > 0;
      });
      const words = observingPageWords.thereIsANoteOn;
      const missing = Object.fromEntries(loose.map(({ id }) => [entryField(id), words]));
      const sessions = students.flatMap((student): WaitingSession[] => {
        const session = inputFrom(draft, student.goals, Date.now(), photographsOf);
        if (!session) return [];
        const { id, shortName } = student;
        const marked = student.goals.filter((goal) => session.entries.some(({ goalId }) => goalId === goal.id));
        return [
          {
            kind: 'session',
            id: newId(),
            personId,
            student: { id, shortName },
            session,
            goals: marked,
            choices,
            savedAt: Date.now(),
            problem: null,
          },
        ];
      });
      if (loose.length === 0 && sessions.length === 0) {
        missing.form = observingPageWords.nothingIsMarkedYetMark;
      }
      // What the goal asks for and is still open is asked about once: saved again, it stays blank.
      if (Object.keys(missing).length === 0) {
        const open = openWords(all, draft, asked.current);
        const first = Object.values(open)[0];
        if (first) {
          Object.assign(missing, open, { form: first });
          askedAt.current = Date.now();
        }
      }
      setMessages(missing);
      leadTo(all, missing, change);
      if (Object.keys(missing).length > 0 || isSaving.current) return;
      asked.current = new Set();
      isSaving.current = true;
      setBusy(true);
      const results = await waiting.save(sessions, [draftKey, `${draftKey} photographs`]);
      isSaving.current = false;
      setBusy(false);
      const refusals = results.flatMap((sent) => (sent.is === 'refused' ? [sent.messages] : []));
      const done = sessions.filter((_, i) => results[i]?.is !== 'refused').flatMap(({ goals }) => goals);
      forgetPhotographs(done.map(({ id }) => id));
      if (refusals.length === 0)
        await Promise.all([draftStore.forget(draftKey), draftStore.forget(`${draftKey} photographs`)]).catch(() => {});
      // Each answer says whom it saved; of several, one sentence names everyone.
      if (results.length > 1) say(severalSaved(sessions, results));
      if (results.every(({ is }) => is === 'saved')) {
        if (!another) return navigate(doneTo);
        void revalidate();
      }
      // What is saved or waits is done with here; what was refused stays as it was typed.
      const left = Object.fromEntries(done.map(({ id }) => [id, untouched(newId())]));
      setMessages(Object.assign({}, ...refusals));
      const marks = { ...draft.goals, ...left };
      change({ type: 'replace', draft: { ...draft, goals: marks, openedAt: Date.now(), selected: null } });
    },
    [
      students,
      draft,
      choices,
      personId,
      draftKey,
      doneTo,
      waiting.save,
      navigate,
      revalidate,
      change,
      say,
      photographsOf,
      forgetPhotographs,
    ],
  );
  return { save, isBusy, messages };
}
