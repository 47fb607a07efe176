import { useState } from 'react';
import { Link, redirect } from 'react-router';
import { longDate, shortDate } from '~/core/calendar/iso-date';
import { checkLog, logUnit } from '~/core/desk/log';
import { figure } from '~/core/words/counting';
import { typedNumber } from '~/core/words/typed-number';
import { database } from '~/server/platform/db/current';
import { idFrom } from '../platform/http/request-person';
import type { Route } from './+types/my-log';
import { withErrorsAtDesk } from './at-desk';
import { logView } from './log-view';
import { useKept } from './use-kept';
import { deskWords, myLogWords } from './words';

export const loader = withErrorsAtDesk(async ({ params }: Route.LoaderArgs, desk) => {
  if (!desk) throw redirect('/desk');
  return logView(database(), desk, idFrom(params.goalId));
});

export const meta: Route.MetaFunction = () => [
  { title: myLogWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

type Loaded = Route.ComponentProps['loaderData'];
type Entry = Loaded['entries'][number];

/** How much the student did: what it comes to, a new entry, and what they entered of late. */
export default function MyLog({ loaderData }: Route.ComponentProps) {
  const { measure, plain, total, entries, selfCounts, studentId } = loaderData;
  const { waiting, message, say } = useKept(studentId);
  const [changing, setChanging] = useState<Entry | null>(null);
  const [saved, setSaved] = useState(0);
  const done = saved > 0 && waiting.length === 0 && !message;
  return (
    <main className="mx-auto max-w-xl px-5 py-6 text-lg sm:py-10">
      <Link to="/desk" className="tap text-base text-ink-2 link">
        {deskWords.backToDesk}
      </Link>
      <h1 className="mt-1 text-3xl">{plain}</h1>
      {total && <Total total={total} measure={measure} />}
      {!selfCounts && <p className="mt-3 text-base text-ink-2">{myLogWords.setAside}</p>}
      <LogForm
        key={`${changing?.id} ${saved}`}
        loaderData={loaderData}
        changing={changing}
        onLeave={() => setChanging(null)}
        onSay={(said) => {
          say('log', said);
          setChanging(null);
          setSaved((count) => count + 1);
        }}
      />
      <p role="status" className={message || done ? 'mt-4 rounded-box bg-wash p-4 text-base' : 'sr-only'}>
        {message ?? (done ? myLogWords.saved : '')}
      </p>
      {entries.length > 0 && (
        <section className="mt-10">
          <h2 className="text-xl">{myLogWords.mine}</h2>
          <ul>
            {entries.map((entry) => (
              <li
                key={entry.id}
                className="flex items-center gap-4 border-b border-dotted border-ink-3/50 py-2 text-base"
              >
                <span className="grow">
                  <strong>
                    {figure(entry.amount)} {logUnit(measure, entry.amount)}
                  </strong>{' '}
                  <span className="text-ink-2">
                    {[labelOf(measure, entry.category), shortDate(entry.on), entry.note].filter(Boolean).join(' · ')}
                  </span>
                </span>
                {entry.canChange && (
                  <button type="button" className="tap link" onClick={() => setChanging(entry)}>
                    {myLogWords.changeIt}
                  </button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}

const labelOf = (measure: Loaded['measure'], category: string | null) =>
  measure.kind === 'cumulativeTotal' ? measure.categories.find(({ key }) => key === category)?.label : undefined;

/** Shades of one hue, so that the bar can be told apart without colour by its order and its words. */
const shades = ['support-1', 'support-3', 'support-2', 'support-0'];

function Total({ total, measure }: { total: NonNullable<Loaded['total']>; measure: Loaded['measure'] }) {
  const left = Math.max(0, total.of - total.soFar);
  const parts = total.byCategory.length > 0 ? total.byCategory : [{ label: '', amount: total.soFar }];
  const share = (amount: number) => `${Math.min(100, Math.max(0, (100 * amount) / Math.max(total.of, total.soFar)))}%`;
  return (
    <>
      <p className="mt-3">
        <span className="display text-5xl">{figure(total.soFar)}</span>{' '}
        {myLogWords.of(`${figure(total.of)} ${logUnit(measure, total.of)}`)}{' '}
        <strong>{left > 0 ? myLogWords.toGo(figure(left)) : myLogWords.full}</strong>
      </p>
      <span aria-hidden className="mt-2 flex h-7 overflow-hidden rounded-full bg-wash">
        {parts.map(({ label, amount }, i) => (
          <span key={label} className={`h-full ${shades[i % shades.length]}`} style={{ width: share(amount) }} />
        ))}
      </span>
      {total.byCategory.length > 0 && (
        <p className="mt-1 text-base text-ink-2">
          {total.byCategory.map(({ label, amount }) => `${figure(amount)} ${label}`).join(' · ')}
        </p>
      )}
    </>
  );
}

interface LogFormProps {
  loaderData: Loaded;
  /** The entry that is changed; null for a new one. */
  changing: Entry | null;
  onSay: (said: Record<string, unknown> & { id?: string }) => void;
  onLeave: () => void;
}

function LogForm({ loaderData: { measure, goalId, total, today }, changing, onSay, onLeave }: LogFormProps) {
  const [typed, setTyped] = useState(changing ? String(changing.amount) : '');
  const [category, setCategory] = useState(changing?.category ?? null);
  const [note, setNote] = useState(changing?.note ?? '');
  const [on, setOn] = useState(changing?.on ?? today);
  const [problem, setProblem] = useState<string | null>(null);
  const amount = typedNumber(typed);
  const categories = measure.kind === 'cumulativeTotal' ? measure.categories : [];
  const will = total && amount !== null ? total.soFar - (changing?.amount ?? 0) + amount : null;
  const what = amount === null ? '' : `${figure(amount)} ${logUnit(measure, amount)}`;
  const save = () => {
    if (amount === null) return setProblem(myLogWords.typeANumber);
    const checked = checkLog(measure, { amount, category });
    if (!checked.ok) return setProblem(checked.message);
    onSay({ ...(changing && { id: changing.id }), goalId, on, amount, category, note });
  };
  return (
    <form
      noValidate
      className="mt-7 grid gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <label className="grid gap-1">
        <span className="font-semibold">
          {measure.kind === 'measurement' ? myLogWords.howHigh : myLogWords.howMuch(measure.unit.many)}
        </span>
        <span className="flex items-center gap-3">
          <input
            value={typed}
            inputMode="decimal"
            autoComplete="off"
            aria-describedby="log-problem"
            aria-invalid={problem ? true : undefined}
            onChange={(event) => {
              setTyped(event.currentTarget.value);
              setProblem(null);
            }}
            className="input h-16 w-36 text-2xl"
          />
          {logUnit(measure, amount ?? 2)}
        </span>
      </label>
      <p id="log-problem" role="alert" className={problem ? 'font-semibold text-clay-deep' : 'sr-only'}>
        {problem}
      </p>
      {categories.length > 0 && (
        <fieldset>
          <legend className="mb-1 font-semibold">{myLogWords.which}</legend>
          <div className="grid grid-cols-2 gap-3">
            {categories.map(({ key, label }) => {
              const chosenClass = `btn h-14 border border-rule text-lg ${category === key ? 'btn-primary' : 'bg-sheet'}`;
              return (
                <button
                  key={key}
                  type="button"
                  aria-pressed={category === key}
                  onClick={() => setCategory(category === key ? null : key)}
                  className={chosenClass}
                >
                  {label}
                </button>
              );
            })}
          </div>
        </fieldset>
      )}
      <label className="grid gap-1">
        <span className="font-semibold">{myLogWords.note}</span>
        <input
          value={note}
          maxLength={200}
          onChange={(event) => setNote(event.currentTarget.value)}
          className="input h-14 w-full text-lg"
        />
      </label>
      <label className="grid gap-1">
        <span className="font-semibold">{myLogWords.day}</span>
        <input
          type="date"
          value={on}
          max={today}
          aria-label={`${myLogWords.day}: ${longDate(on)}`}
          onChange={(event) => setOn(event.currentTarget.value || today)}
          className="input h-14 w-52 text-lg"
        />
      </label>
      {total && will !== null && (
        <p role="status" className="text-base">
          {myLogWords.withThese(figure(will), figure(total.of))}
        </p>
      )}
      <button type="submit" className="btn btn-primary h-16 text-lg">
        {changing ? myLogWords.change(what) : myLogWords.save(what)}
      </button>
      {changing && (
        <button type="button" className="btn h-14" onClick={onLeave}>
          {myLogWords.leaveIt}
        </button>
      )}
    </form>
  );
}
