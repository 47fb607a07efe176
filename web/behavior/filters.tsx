import { Printer } from 'lucide-react';
import { Form, Link, useSubmit } from 'react-router';
import { counted, rateFigure } from '~/core/words/counting';
import type { BehaviorAsked, BehaviorView } from './behavior-view';

interface FiltersProps {
  view: BehaviorView;
  asked: Pick<BehaviorAsked, 'search' | 'phase' | 'beside'>;
}

/** Which incidents are looked at. A change is shown at once; without scripts there is a button. */
export function Filters({ view, asked }: FiltersProps) {
  const submit = useSubmit();
  const { behaviors, chosen, range, filters, figures } = view;
  const fields = [
    { name: 'location', label: 'Where', value: asked.search.location, options: filters.settings },
    { name: 'observer', label: 'Noted by', value: asked.search.observer, options: filters.observers },
    {
      ...{ name: 'phase', label: 'Phase', value: asked.phase ?? undefined },
      options: filters.phases.length > 0 ? [{ id: 'before', name: 'Before' }, ...filters.phases] : [],
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
        <span className="text-ink-2">Behavior</span>
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
          <span className="text-ink-2">{name === 'from' ? 'From' : 'To'}</span>
          <input type="date" name={name} defaultValue={asked.search[name] ?? range[name]} className="input w-34" />
        </label>
      ))}
      {fields.map(
        ({ name, label, value, options }) =>
          options.length > 0 && (
            <label key={name} className="grid gap-0.5">
              <span className="text-ink-2">{label}</span>
              <select name={name} defaultValue={value ?? ''} className="select w-24">
                <option value="">all</option>
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
            ? ` in ${counted(view.schoolDays, 'school day', 'school days')}`
            : '. How long was watched is not known for this choice, so there is no rate'}
          {view.schoolDays > 0 && figures && `: ${rateFigure(figures.perSchoolDay.rate)} a day`}
          {figures && figures.onOtherDays > 0 && `; ${figures.onOtherDays} more on days without school, in no rate`}
          {figures?.perHourObserved.rate != null && `, ${rateFigure(figures.perHourObserved.rate)} an hour observed`}
        </p>
        <details open={asked.beside !== null}>
          <summary className="tap cursor-pointer py-2 link">Against other dates</summary>
          <span className="flex gap-2">
            {(['from2', 'to2'] as const).map((name) => (
              <input
                key={name}
                type="date"
                name={name}
                aria-label={name === 'from2' ? 'Other dates, from' : 'Other dates, to'}
                defaultValue={name === 'from2' ? asked.beside?.from : asked.beside?.to}
                className="input w-34"
              />
            ))}
          </span>
        </details>
        <noscript>
          <button type="submit" className="btn">
            Show
          </button>
        </noscript>
        <button type="button" className="btn ml-auto" onClick={() => window.print()}>
          <Printer size={16} aria-hidden /> Print
        </button>
      </div>
    </Form>
  );
}
