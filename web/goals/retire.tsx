import { useId, useState } from 'react';
import { Link, useFetcher } from 'react-router';
import { type IsoDate, longDate } from '~/core/calendar/iso-date';
import { retirementWords } from '~/core/goals/retirement-words';
import { Dialog } from '../platform/ui/dialog';
import { FieldMessage } from '../platform/ui/fields';
import type { action, Line } from './arrange';
import { retireWords } from './words';

interface RetireDialogProps {
  goal: Line;
  others: Line[];
  today: IsoDate;
  onClose: () => void;
}

/** Asks why a goal is no longer worked on, and since when. */
export function RetireDialog({ goal, others, today, onClose }: RetireDialogProps) {
  const fetcher = useFetcher<typeof action>();
  const [how, setHow] = useState<keyof typeof retirementWords | null>(null);
  const messages = fetcher.data?.result?.error ?? {};
  const id = useId();
  return (
    <Dialog title={retireWords.dialogTitle(goal.shortName)} onClose={onClose}>
      <fetcher.Form method="post" className="grid gap-4 p-6">
        <h2 className="text-xl">{retireWords.heading(goal.number, goal.shortName)}</h2>
        <input type="hidden" name="intent" value="retire" />
        <input type="hidden" name="goalId" value={goal.id} />
        <fieldset className="grid gap-1">
          <legend className="sr-only">{retireWords.why}</legend>
          {Object.entries(retirementWords).map(([key, words]) => (
            <label key={key} className="flex tap items-center gap-2.5">
              <input
                type="radio"
                name="how"
                value={key}
                checked={how === key}
                disabled={key === 'replaced' ? others.length === 0 : key === 'met' && !goal.hasScore}
                onChange={() => setHow(key as typeof how)}
                className="radio radio-sm"
              />
              {words}
              {key === 'met' && !goal.hasScore && <span className="text-small text-ink-2">{retireWords.noScore}</span>}
            </label>
          ))}
          <FieldMessage messages={messages.how ?? undefined} />
        </fieldset>
        {how === 'replaced' && (
          <div className="grid gap-1">
            <label htmlFor={`${id}-by`} className="text-small font-semibold">
              {retireWords.theGoalThatTakesIts}
            </label>
            <select id={`${id}-by`} name="replacedBy" className="select w-full">
              {others.map((other) => (
                <option key={other.id} value={other.id}>
                  {other.number} {other.shortName}
                </option>
              ))}
            </select>
            <FieldMessage messages={messages.replacedBy ?? undefined} />
          </div>
        )}
        <div className="grid gap-1">
          <label htmlFor={`${id}-on`} className="text-small font-semibold">
            {retireWords.on}
          </label>
          <input id={`${id}-on`} type="date" name="on" defaultValue={today} max={today} className="input w-44" />
          <FieldMessage messages={messages.on ?? undefined} />
        </div>
        <div className="grid gap-1">
          <label htmlFor={`${id}-note`} className="text-small font-semibold">
            {retireWords.note}
          </label>
          <input id={`${id}-note`} name="note" maxLength={400} className="input w-full" />
        </div>
        <div className="flex justify-end gap-2">
          <button type="button" className="btn" onClick={onClose}>
            {retireWords.keepIt}
          </button>
          <button type="submit" className="btn btn-primary" disabled={fetcher.state !== 'idle'}>
            {retireWords.retire}
          </button>
        </div>
      </fetcher.Form>
    </Dialog>
  );
}

/** A retired goal, to be looked at or taken up again. */
export function RetiredLine({ goal, studentId }: { goal: Line; studentId: string }) {
  const fetcher = useFetcher<typeof action>();
  const { id, number, shortName, retired } = goal;
  if (!retired) return null;
  const messages = fetcher.data?.result?.error ?? {};
  const how = retired.replacedBy
    ? retireWords.replacedBy(retired.replacedBy)
    : retirementWords[retired.how].toLowerCase();
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule py-3">
      <span className="display w-10 text-xl text-ink-3">{number}</span>
      <span className="min-w-0 grow basis-60">
        <Link to={`/students/${studentId}/goals/${id}`} className="display text-lg hover:underline">
          {shortName}
        </Link>
        <span className="block text-small text-ink-2">
          {[retireWords.howAndWhen(how, longDate(retired.on)), retired.note].filter(Boolean).join(' · ')}
        </span>
        <FieldMessage messages={messages.goalId ?? undefined} />
      </span>
      <fetcher.Form method="post">
        <input type="hidden" name="goalId" value={id} />
        <button
          type="submit"
          name="intent"
          value="bringBack"
          aria-label={retireWords.bringBackNamed(number, shortName)}
          className="btn"
        >
          {retireWords.bringBack}
        </button>
      </fetcher.Form>
    </li>
  );
}
