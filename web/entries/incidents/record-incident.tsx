import { Repeat2 } from 'lucide-react';
import { useCallback, useRef, useState } from 'react';
import { Link, useNavigate, useRevalidator } from 'react-router';
import { v4 as newId } from 'uuid';
import type { IncidentScreen } from '~/core/entries/waiting';
import { database } from '~/server/platform/db/current';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { isRunning } from '../../measures/clock';
import { useNow } from '../../measures/use-now';
import { idFrom, personOf } from '../../platform/http/request-person';
import { withErrors } from '../../platform/http/with-errors';
import { useScreenNow } from '../../platform/offline/connection';
import { draftStore } from '../../platform/offline/device-store';
import { SaveBar } from '../../platform/offline/save-bar';
import { useWaiting } from '../../platform/offline/waiting';
import { HowThisWorks } from '../../platform/ui/how-this-works';
import { MarginTitle, Page } from '../../platform/ui/page';
import { useSaveKey } from '../../platform/ui/use-save-key';
import { Photographs } from '../evidence/photographs';
import { type Photographs as Taken, usePhotographs } from '../evidence/use-photographs';
import { KeptDraft } from '../kept-draft';
import { useKeptDraft } from '../use-kept-draft';
import { useWallClock } from '../use-wall-clock';
import type { Route } from './+types/record-incident';
import {
  changedIncident,
  draftSentence,
  emptyIncident,
  type IncidentDraft,
  incidentDraft,
  incidentInputFrom,
  isIncidentTouched,
  nextIncident,
} from './incident-draft';
import { IncidentFields } from './incident-fields';
import { incidentScreenOf } from './recording';
import { incidentWords, recordIncidentWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const asker = personOf(context);
  const student = await requireStudent(database(), asker.actor, idFrom(params.studentId), 'observe');
  return {
    incidentScreen: await incidentScreenOf(database(), asker, student),
    mayEditGoals: can(student, 'editGoals'),
  };
});

// The tab says nothing of what is written, nor of whom.
export const meta: Route.MetaFunction = () => [{ title: recordIncidentWords.pageTitle }];

export default function RecordIncident({ loaderData }: Route.ComponentProps) {
  const { mayEditGoals } = loaderData;
  const incidentScreen = useScreenNow(loaderData.incidentScreen);
  const { student, offered } = incidentScreen;
  if (!offered.behavior.some(({ abc }) => abc))
    return <NothingToChoose student={student} mayEditGoals={mayEditGoals} />;
  // Another student is another incident: nothing of the last one may stay.
  return <RecordIncidentScreen key={student.id} incidentScreen={incidentScreen} />;
}

/** Before there is a behavior to record. */
export function NothingToChoose({
  student,
  mayEditGoals,
  toCount = false,
}: {
  student: IncidentScreen['student'];
  mayEditGoals: boolean;
  /** There may be behaviors that are recorded incident by incident, but none that is counted. */
  toCount?: boolean;
}) {
  const missing = toCount ? recordIncidentWords.noBehaviorIsCounted : recordIncidentWords.noTargetBehaviorIsSet;
  return (
    <Page
      marginName={recordIncidentWords.why}
      margin={<MarginTitle>{recordIncidentWords.nothingToRecordYet}</MarginTitle>}
    >
      <h1 className="text-3xl">{student.shortName}</h1>
      <p className="mt-4 max-w-xl text-ink-2">
        {missing(
          student.firstName,
          mayEditGoals ? recordIncidentWords.itTakesAMinuteAnd : recordIncidentWords.theCaseManagerSetsThem,
        )}
      </p>
      {mayEditGoals && (
        <p className="mt-4">
          <Link to={`/students/${student.id}/behavior/set-up`} className="btn btn-primary">
            {recordIncidentWords.setUpBehavior}
          </Link>
        </p>
      )}
    </Page>
  );
}

function RecordIncidentScreen({ incidentScreen }: { incidentScreen: IncidentScreen }) {
  const { student, personId, last, discreet } = incidentScreen;
  const words = incidentWords(discreet);
  const [draft, setDraft] = useState(() => emptyIncident(incidentScreen, newId(), incidentScreen.wall));
  const timeNow = useWallClock(incidentScreen.wall);
  const draftKey = `${personId} ${student.id} incident`;
  const bringBack = useCallback((found: IncidentDraft) => setDraft(found), []);
  const kept = useKeptDraft(draftKey, incidentDraft, draft, isIncidentTouched, bringBack);
  const change = (changes: Partial<IncidentDraft>) =>
    setDraft((before) => changedIncident(incidentScreen, before, changes, timeNow()));
  const taken = usePhotographs(draftKey);
  const { save, isBusy, messages } = useSaveIncident(incidentScreen, draft, setDraft, draftKey, taken);
  const startOver = () => {
    taken.forget([student.id]);
    setDraft(emptyIncident(incidentScreen, newId(), timeNow()));
  };
  useSaveKey(() => void save({ another: false }));
  const now = useNow(isRunning(draft.clock));
  const sentence = draftSentence(incidentScreen, draft, now);
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
          {!discreet && <HowThisWorks of="incident" />}
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
          <button type="button" onClick={() => change(last)} className="btn btn-sm">
            <Repeat2 size={16} aria-hidden /> <span className="max-sm:sr-only">{words.again}</span>
          </button>
        )}
        <KeptDraft kept={kept === 'none' ? taken.kept : kept} onStartOver={startOver} />
      </header>
      <div className="max-lg:pb-24">
        <IncidentFields
          incidentScreen={incidentScreen}
          draft={draft}
          messages={messages}
          onChange={change}
          mayBeSecond
          photographs={
            <Photographs
              of={words.title}
              photographs={taken.of(student.id)}
              onChange={(some) => taken.change(student.id, some)}
              hasRoomFor={taken.hasRoomFor}
              discreet={discreet}
            />
          }
        />
      </div>
    </Page>
  );
}

/** Saves the incident; without the server it waits on this device. */
function useSaveIncident(
  incidentScreen: IncidentScreen,
  draft: IncidentDraft,
  setDraft: (draft: IncidentDraft) => void,
  draftKey: string,
  taken: Taken,
) {
  const { student, personId } = incidentScreen;
  const waiting = useWaiting();
  const navigate = useNavigate();
  const { revalidate } = useRevalidator();
  const [messages, setMessages] = useState<Record<string, string>>({});
  const [isBusy, setBusy] = useState(false);
  const isSaving = useRef(false);
  const save = async ({ another }: { another: boolean }) => {
    const incident = incidentInputFrom(draft, Date.now());
    const photographs = taken.of(student.id);
    if (incident.behaviors.length === 0 && !incident.others.some(({ kind }) => kind === 'behavior')) {
      return setMessages({
        behaviors: recordIncidentWords.sayWhatHappened,
        form: recordIncidentWords.oneThingIsMissingWhat,
      });
    }
    if (isSaving.current) return;
    isSaving.current = true;
    setBusy(true);
    const { id, shortName } = student;
    const [sent] = await waiting.save(
      [
        {
          kind: 'incident',
          id: newId(),
          personId,
          student: { id, shortName },
          incident: { ...incident, ...(photographs.length > 0 && { photographs: [...photographs] }) },
          incidentScreen,
          savedAt: Date.now(),
          problem: null,
        },
      ],
      [draftKey, `${draftKey} photographs`],
    );
    isSaving.current = false;
    setBusy(false);
    if (sent?.is === 'refused') {
      const form = recordIncidentWords.itIsNotSavedYet;
      return setMessages({ form, ...sent.messages });
    }
    setMessages({});
    taken.forget([student.id]);
    await Promise.all([draftStore.forget(draftKey), draftStore.forget(`${draftKey} photographs`)]).catch(() => {});
    if (sent?.is === 'saved' && !another) return navigate(`/students/${student.id}/behavior`);
    if (sent?.is === 'saved') void revalidate();
    setDraft(
      another
        ? nextIncident(incidentScreen, draft, newId())
        : emptyIncident(incidentScreen, newId(), incidentScreen.wall),
    );
  };
  return { save, isBusy, messages };
}
