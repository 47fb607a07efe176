import { EyeOff, Search, UserRoundPen } from 'lucide-react';
import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { Form, Link, Outlet, useFetcher, useLocation } from 'react-router';
import { shortDate } from '~/core/calendar/iso-date';
import type { WallTime } from '~/core/calendar/zone';
import { discreetStudent } from '~/core/goals/discreet';
import { isDueFor } from '~/core/progress/due';
import { toldApart } from '~/core/students/told-apart';
import { database } from '~/server/platform/db/current';
import { can } from '~/server/students/rights';
import { studentTabs } from '~/server/students/students';
import type { ChangeAnswer } from '../entries/change-messages';
import { useChange } from '../entries/use-change';
import { useWallClock } from '../entries/use-wall-clock';
import { isOfSeveral, personOf, signedIn } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { useWallNow } from '../platform/offline/connection';
import { isRecording, KeptNotice } from '../platform/offline/kept-notice';
import { useWaiting, WaitingProvider } from '../platform/offline/waiting';
import { Dialog } from '../platform/ui/dialog';
import { KeyHelp } from '../platform/ui/key-help';
import { useKey } from '../platform/ui/use-key';
import type { Route } from './+types/shell';
import { Places, ThumbBar } from './places';
import { StudentTabs } from './student-tabs';
import { shellWords } from './words';

const Finder = lazy(() => import('./finder'));
const LockWatch = lazy(() => import('../people/lock-watch'));
const loadWaitingDialog = () => import('../entries/waiting-dialog');
/** Where it cannot be fetched any more, the network being gone, that is said: the page itself stays. */
const WaitingDialog = lazy(() => loadWaitingDialog().catch(() => ({ default: NotHere })));

export const middleware: Route.MiddlewareFunction[] = [signedIn];

export const loader = withErrors(async ({ context, request }: Route.LoaderArgs) => {
  const { person, actor, school, schools, discreet, wall, lockMinutes } = personOf(context);
  const all = await studentTabs(database(), actor);
  const apart = toldApart(
    discreet ? [] : all.map((tab) => ({ ...tab, name: tab.shortName, groups: tab.group ? [tab.group] : [] })),
  );
  const tabs = all.map((tab) => {
    const { id, initials, shortName } = discreet ? discreetStudent(tab) : tab;
    const { group } = tab;
    const due =
      can(tab, 'see') &&
      tab.goals.some((goal) =>
        isDueFor(goal, { calendar: school.calendar, today: actor.today, personId: actor.personId }),
      );
    const going = tab.going.map((note) => ({ ...note, isToday: note.on === actor.today }));
    return {
      id,
      initials,
      name: [shortName, apart.get(id)].filter(Boolean).join(' · '),
      group,
      isDue: due,
      maySee: can(tab, 'see'),
      mayShare: can(tab, 'share'),
      going,
    };
  });
  const { id, initials, shortName } = person;
  return {
    tabs,
    wall,
    discreet,
    lockMinutes,
    isOfSeveral: await isOfSeveral(request),
    person: { id, initials, name: shortName },
    schoolName: school.name,
    schools,
    schoolId: school.id,
  };
});

export type Tab = Route.ComponentProps['loaderData']['tabs'][number];

export default function Shell({ loaderData }: Route.ComponentProps) {
  const { id } = loaderData.person;
  const { tabs } = loaderData;
  const names = useMemo(() => Object.fromEntries(tabs.map((tab) => [tab.id, tab.name])), [tabs]);
  return (
    <WaitingProvider key={id} personId={id} names={names}>
      <SignedIn {...loaderData} />
    </WaitingProvider>
  );
}

function SignedIn(props: Route.ComponentProps['loaderData']) {
  const { tabs, wall, discreet, person, schoolName, schools, schoolId, lockMinutes, isOfSeveral } = props;
  const [open, setOpen] = useState<'finder' | 'keys' | 'waiting' | null>(null);
  useKey('/', () => setOpen('finder'), { takesOver: true });
  useKey('?', () => setOpen('keys'), { takesOver: true });
  const { pathname } = useLocation();
  const close = () => setOpen(null);
  return (
    <div className="flex min-h-dvh flex-col">
      <a href="#page" className="btn btn-sm absolute left-2 -top-16 z-50 focus:top-2">
        {shellWords.toThePage}
      </a>
      <header className="no-print flex h-13 shrink-0 items-center gap-1.5 border-b border-rule bg-sheet px-2 sm:gap-1.5 lg:gap-3 sm:px-4 xl:gap-6">
        <Link to="/" className="display flex tap min-w-6 items-center gap-2.5 text-xl whitespace-nowrap">
          <span aria-hidden className="h-6 w-[3px] rounded bg-clay max-sm:ml-2" />
          <span className="sm:max-xl:sr-only">{shellWords.gentleMargin}</span>
        </Link>
        <Places />
        {schools.length > 1 ? (
          <SchoolSwitch schools={schools} schoolId={schoolId} />
        ) : (
          <span className="ml-auto hidden text-small text-ink-3 2xl:block">{schoolName}</span>
        )}
        <button
          type="button"
          onClick={() => setOpen('finder')}
          className={`tap flex shrink-0 items-center gap-3 rounded-field border-edge bg-paper px-2.5 text-small text-ink-2 sm:border xl:w-52 ${schools.length > 1 ? '' : 'max-2xl:ml-auto'}`}
        >
          <span className="max-xl:sr-only">{shellWords.findAStudentOrGoal}</span>
          <Search size={16} aria-hidden className="xl:hidden" />
          <kbd className="keycap ml-auto max-xl:hidden">/</kbd>
        </button>
        <WaitingButton onPress={() => setOpen('waiting')} />
        {isOfSeveral && <HandOver />}
        <DiscreetSwitch isOn={discreet} />
        <Link
          to="/account"
          aria-label={shellWords.accountOf(person.initials, person.name)}
          className="grid size-8 shrink-0 place-items-center rounded-full pointer-coarse:size-11 bg-neutral text-xs font-bold text-neutral-content"
        >
          {person.initials}
        </Link>
      </header>
      <KeptNotice />
      <StillGoing tabs={tabs} wall={wall} />
      <div className="flex grow max-sm:flex-col">
        <StudentTabs tabs={tabs} />
        <div className="min-w-0 grow">
          <Outlet />
        </div>
      </div>
      {!isRecording(pathname) && <ThumbBar />}
      {open === 'finder' && <FindDialog onClose={close} />}
      {open === 'waiting' && (
        <Suspense>
          <WaitingDialog onClose={close} />
        </Suspense>
      )}
      {open === 'keys' && <KeyHelp onClose={close} />}
      {lockMinutes !== null && (
        <Suspense>
          <LockWatch minutes={lockMinutes} personId={person.id} name={person.name} />
        </Suspense>
      )}
    </div>
  );
}

/** The field takes letters from the first moment; what it finds is fetched meanwhile. */
function FindDialog({ onClose }: { onClose: () => void }) {
  const [typed, setTyped] = useState('');
  const [isEntered, setEntered] = useState(false);
  return (
    <Dialog title={shellWords.findAStudentOrGoal} onClose={onClose}>
      <Suspense
        fallback={
          <input
            autoFocus
            aria-label={shellWords.findAStudentOrGoal}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            onKeyDown={(event) => setEntered(event.key === 'Enter' && typed.trim() !== '')}
            className="h-14 w-full border-b border-rule bg-transparent px-5 text-lg outline-none"
          />
        }
      >
        <Finder typed={typed} isEntered={isEntered} onType={setTyped} onClose={onClose} />
      </Suspense>
    </Dialog>
  );
}

/** For whoever works at several schools: which of them everything here is of. */
function SchoolSwitch({ schools, schoolId }: { schools: { id: string; name: string }[]; schoolId: string }) {
  const fetcher = useFetcher();
  return (
    <fetcher.Form method="post" action="/school/switch" className="ml-auto max-w-40 shrink">
      <select
        name="school"
        aria-label={shellWords.school}
        key={schoolId}
        defaultValue={schoolId}
        className="select w-full text-small"
        onChange={(event) => fetcher.submit(event.currentTarget.form)}
      >
        {schools.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      <noscript>
        <button type="submit" className="btn btn-sm">
          {shellWords.go}
        </button>
      </noscript>
    </fetcher.Form>
  );
}

/** How much waits on this device; nothing to see while the server has everything. */
function WaitingButton({ onPress }: { onPress: () => void }) {
  const { list, unreadable, sealed } = useWaiting();
  const all = list.length + unreadable.length + sealed;
  useEffect(() => {
    // While it can still be fetched: it will be needed without the server.
    const timer = setTimeout(() => loadWaitingDialog().catch(() => {}), 3000);
    return () => clearTimeout(timer);
  }, []);
  if (all === 0) return null;
  return (
    <button
      type="button"
      onClick={onPress}
      className="flex h-9 items-center gap-2 rounded-field bg-clay-wash px-2.5 text-small font-semibold whitespace-nowrap text-clay-deep"
    >
      <span aria-hidden className="size-2 rounded-full bg-clay" />
      {all} <span className="max-xl:sr-only">{shellWords.waitingToBeSent}</span>
    </button>
  );
}

/** Incidents without an end: closed with one tap, from anywhere; one of another day leads to its page. */
function StillGoing({ tabs, wall }: { tabs: Tab[]; wall: WallTime }) {
  const timeNow = useWallClock(useWallNow(wall));
  const all = tabs.flatMap(({ id, name, going }) => going.map((note) => ({ ...note, studentId: id, name })));
  if (all.length === 0) return null;
  return (
    <section aria-label={shellWords.stillGoing} className="no-print border-b border-rule bg-clay-wash px-4">
      <ul className="flex flex-wrap items-center gap-x-6">
        {all.map(({ id, studentId, name, on, time, version, isToday }) => {
          const page = `/students/${studentId}/incidents/${id}`;
          return (
            <li key={id} className="flex items-center gap-3 py-1 text-small">
              <Link to={page} className="link">
                {name}: {isToday ? shellWords.since(time) : shellWords.sinceWithoutAnEnd(shortDate(on))}
              </Link>
              {isToday && <EndIncident action={page} version={version} timeNow={timeNow} />}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** Ends an incident now; without the server the end waits, with the time at which it was said. */
function EndIncident(props: { action: string; version: number; timeNow: () => WallTime }) {
  const { action, version, timeNow } = props;
  const { isBusy, waits, save } = useChange<ChangeAnswer>(action);
  if (waits) return <span className="font-semibold">{shellWords.endedAndWaits}</span>;
  const end = () => save({ intent: 'end', version, time: timeNow().time, seconds: null });
  return (
    <button type="button" disabled={isBusy} className="btn btn-sm" onClick={end}>
      {shellWords.itHasEnded}
    </button>
  );
}

/** On a device of several: the next one takes it. What waits stays, sealed, until whose it is takes it again. */
function HandOver() {
  return (
    <Form method="post" action="/sign-out">
      <button type="submit" className="btn btn-sm">
        <UserRoundPen size={16} aria-hidden className="xl:hidden" />
        <span className="max-xl:sr-only">{shellWords.handOver}</span>
      </button>
    </Form>
  );
}

/** Hides names at once, on this device, wherever one is. */
function DiscreetSwitch({ isOn }: { isOn: boolean }) {
  const fetcher = useFetcher();
  const { pathname, search } = useLocation();
  const shown = fetcher.formData ? fetcher.formData.get('discreet') === 'on' : isOn;
  return (
    <fetcher.Form method="post" action="/preferences">
      <input type="hidden" name="from" value={pathname + search} />
      <button
        type="submit"
        name="discreet"
        value={shown ? 'off' : 'on'}
        aria-pressed={shown}
        className={`flex h-9 min-w-9 pointer-coarse:min-w-11 items-center justify-center gap-1.5 rounded-field px-2 text-small whitespace-nowrap ${shown ? 'bg-fern-wash font-semibold text-fern' : 'text-ink-2'}`}
      >
        <EyeOff size={16} aria-hidden className={shown ? '' : 'lg:hidden'} />
        <span className="max-lg:sr-only">{shown ? shellWords.discreetOn : shellWords.discreetOff}</span>
      </button>
    </fetcher.Form>
  );
}

function NotHere({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title={shellWords.noConnection} onClose={onClose}>
      <p className="p-6">{shellWords.whatWaitsIsSafe}</p>
    </Dialog>
  );
}
