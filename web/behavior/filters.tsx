import { Printer } from 'lucide-react';
import { Form, Link, useSubmit } from 'react-router';
import { counted, rateFigure } from '~/core/words/counting';
import type { BehaviorAsked, BehaviorView } from './behavior-view';
import { filtersWords } from './words';

interface FiltersProps {
  view: BehaviorView;
  asked: Pick<BehaviorAsked, 'search' | 'phase' | 'beside'>;
}

/** Which incidents are looked at. A change is shown at once; without scripts there is a button. */
export function Filters({ view, asked }: FiltersProps) {
  const submit = useSubmit();
  const { behaviors, chosen, range, filters, figures } = view;
  const fields = [
    { name: 'location', label: filtersWords.where, value: asked.search.location, options: filters.settings },
    { name: 'observer', label: filtersWords.notedBy, value: asked.search.observer, options: filters.observers },
    {
      ...{ name: 'phase', label: filtersWords.phase, value: asked.phase ?? undefined },
      options: filters.phases.length > 0 ? [{ id: 'before', name: filtersWords.before }, ...filters.phases] : [],
    },
  ];
  return (
    <Form
      method="get"
      preventScrollReset
      onChange={(event) => submit(event.currentTarget, { preventScrollReset: true, replace: true })}
      className="no-print mt-4 flex flex-wrap items-end gap-x-3 gap-y-2 text-small"
    >
      <label className="grid gap-0.5">
        <span className="text-ink-2">{filtersWords.behavior}</span>
        <select name="behavior" defaultValue={chosen?.id} className="select w-50 font-semibold">
          {behaviors.map(({ id, name, n }) => (
            <option key={id} value={id}>
              {name} ({n})
            </option>
          ))}
        </select>
      </label>
      {(['from', 'to'] as const).map((name) => (
        <label key={name} className="grid gap-0.5">
          <span className="text-ink-2">{name === 'from' ? filtersWords.from : filtersWords.to}</span>
          <input type="date" name={name} defaultValue={asked.search[name] ?? range[name]} className="input w-34" />
        </label>
      ))}
      {fields.map(
        ({ name, label, value, options }) =>
          options.length > 0 && (
            <label key={name} className="grid gap-0.5">
              <span className="text-ink-2">{label}</span>
              <select name={name} defaultValue={value ?? ''} className="select w-24">
                <option value="">{filtersWords.all}</option>
                {options.map((option) => (
                  <option key={option.id} value={option.id}>
                    {option.name}
                  </option>
                ))}
              </select>
            </label>
          ),
      )}
      <div className="flex w-full flex-wrap items-center gap-x-5 gap-y-1">
        <p className="text-ink-2">
          <Link to={view.toAll} className="link">
            {counted(view.incidents, 'incident', 'incidents')}
          </Link>
          {view.schoolDays > 0
            ? filtersWords.in(counted(view.schoolDays, filtersWords.schoolDay, filtersWords.schoolDays))
            : filtersWords.howLongWasWatchedIs}
          {view.daysAway > 0 && filtersWords.daysAway(view.daysAway)}
          {view.schoolDays > 0 && figures && filtersWords.aDay(rateFigure(figures.perSchoolDay.rate))}
          {figures && figures.onOtherDays > 0 && filtersWords.onOtherDays(figures.onOtherDays)}
          {figures?.perHourObserved.rate != null &&
            filtersWords.anHourObserved(rateFigure(figures.perHourObserved.rate))}
        </p>
        <details open={asked.beside !== null}>
          <summary className="tap cursor-pointer py-2 link">{filtersWords.againstOtherDates}</summary>
          <span className="flex gap-2">
            {(['from2', 'to2'] as const).map((name) => (
              <input
                key={name}
                type="date"
                name={name}
                aria-label={name === 'from2' ? filtersWords.otherDatesFrom : filtersWords.otherDatesTo}
                defaultValue={name === 'from2' ? asked.beside?.from : asked.beside?.to}
                className="input w-34"
              />
            ))}
          </span>
        </details>
        <noscript>
          <button type="submit" className="btn">
            {filtersWords.show}
          </button>
        </noscript>
        <button type="button" className="btn ml-auto" onClick={() => window.print()}>
          <Printer size={16} aria-hidden />
          {filtersWords.print}
        </button>
      </div>
    </Form>
  );
}
