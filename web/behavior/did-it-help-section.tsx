import type { SubmissionResult } from '@conform-to/react';
import { useMemo } from 'react';
import { Link, useFetcher } from 'react-router';
import { addDays, type IsoDate, shortDate } from '~/core/calendar/iso-date';
import { phaseInput } from '~/core/entries/incidents/incident-input';
import type { GoalGraph } from '~/core/progress/graph/goal-graph';
import { rateFigure } from '~/core/words/counting';
import { SelectField, TextField } from '../platform/ui/form-fields';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { GoalChart } from '../progress/goal-chart';
import type { BehaviorView } from './behavior-view';
import { didItHelpSectionWords } from './words';

type Help = NonNullable<BehaviorView['help']>;

interface DidItHelpProps {
  help: Help;
  behavior: { id: string; name: string };
  /** A fresh id for the next change, made with the page. */
  newPhaseId: string;
  mayEditGoals: boolean;
  today: IsoDate;
  /** Addresses of the same page per school day and per hour observed. */
  perLinks: { schoolDay: string; hour: string };
}

/** What changed, and what came of it. */
export function DidItHelp({ help, behavior, newPhaseId, mayEditGoals, today, perLinks }: DidItHelpProps) {
  const graph = useMemo(() => graphOf(help, today), [help, today]);
  return (
    <section aria-labelledby="help" className="mt-9">
      <h2 id="help" className="text-lg">
        {didItHelpSectionWords.beforeAndAfter}
      </h2>
      {help.phases.length === 0 && <p className="mt-1 text-ink-2">{didItHelpSectionWords.nothingHasBeenChangedYet}</p>}
      {help.comparisons.map(({ to, sentence, figures, enough }) => (
        <div key={to} className="mt-2 max-w-3xl">
          <p>{sentence}</p>
          {enough !== 'tooFew' && (
            <dl className="mt-1 flex flex-wrap gap-x-7 text-small">
              {figures.map(([label, value]) => (
                <div key={label} className="flex gap-1.5">
                  <dt className="text-ink-2">{label}</dt>
                  <dd className="font-semibold">{value}</dd>
                </div>
              ))}
            </dl>
          )}
        </div>
      ))}
      {help.comparisons.length > 0 && (
        <p className="mt-2 max-w-3xl text-small text-ink-2">{didItHelpSectionWords.twoPhasesShowThatSomething}</p>
      )}
      {help.phases.length > 0 && help.points.length > 0 && (
        <div className="mt-3">
          <GoalChart graph={graph} />
          <details className="no-print">
            <summary className="tap cursor-pointer py-2 text-small link">
              {didItHelpSectionWords.theSameNumbersAsA}
            </summary>
            <table className="table table-sm max-w-md">
              <thead>
                <tr className="text-ink-2">
                  {[didItHelpSectionWords.phase, didItHelpSectionWords.days, didItHelpSectionWords.median].map(
                    (heading) => (
                      <th key={heading} scope="col">
                        {heading}
                      </th>
                    ),
                  )}
                </tr>
              </thead>
              <tbody>
                {help.figures.map(({ label, n, median }) => (
                  <tr key={label}>
                    <th scope="row" className="font-normal">
                      {label}
                    </th>
                    <td>{n}</td>
                    <td>{rateFigure(median)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </details>
        </div>
      )}
      {help.mayBeHour && (
        <p className="no-print mt-1 flex gap-4 text-small">
          {(['schoolDay', 'hour'] as const).map((per) => (
            <Link
              key={per}
              to={perLinks[per]}
              preventScrollReset
              aria-current={help.per === per ? 'true' : undefined}
              className="flex tap items-center link aria-[current]:font-bold aria-[current]:no-underline"
            >
              {per === 'hour' ? didItHelpSectionWords.perHourObserved : didItHelpSectionWords.perSchoolDay}
            </Link>
          ))}
        </p>
      )}
      {mayEditGoals && <Changes help={help} behavior={behavior} newPhaseId={newPhaseId} today={today} />}
    </section>
  );
}

/** The days in stretches of one phase, as the graph of a goal draws them. */
function graphOf({ points, phases, per }: Help, today: IsoDate): GoalGraph {
  const unit = per === 'hour' ? didItHelpSectionWords.anHourObserved : didItHelpSectionWords.thatDay;
  const numbers = [...new Set(points.map(({ phase }) => phase))];
  return {
    runs: numbers.map((number) =>
      points
        .filter(({ phase }) => phase === number)
        .map(({ on, value, n }) => ({ on, value, said: `${shortDate(on)}: ${n}, ${rateFigure(value)} ${unit}` })),
    ),
    aimLine: null,
    trend: null,
    phases: [
      { on: points[0]?.on ?? today, label: didItHelpSectionWords.before },
      ...phases.map(({ startsOn, label }) => ({ on: startsOn, label })),
    ],
    from: addDays(points[0]?.on ?? today, -1),
    to: addDays(today, 1),
    target: null,
    isUp: false,
    max: Math.max(1, Math.ceil(Math.max(...points.map(({ value }) => value)))),
    unit: '',
    caption: per === 'hour' ? didItHelpSectionWords.howOftenInEachHour : didItHelpSectionWords.howManyIncidentsOnEach,
  };
}

/** What has changed and when; a new support is written down here. */
function Changes({
  help,
  behavior,
  newPhaseId,
  today,
}: Pick<DidItHelpProps, 'help' | 'behavior' | 'newPhaseId' | 'today'>) {
  const fetcher = useFetcher<{ result?: SubmissionResult<string[]> }>();
  const { form, fields } = useSchemaForm(phaseInput, {
    id: `phase-${newPhaseId}`,
    result: fetcher.state === 'idle' ? fetcher.data?.result : null,
    defaultValue: { startsOn: today, behaviorId: behavior.id },
  });
  return (
    <div className="no-print mt-3 max-w-3xl">
      <ul>
        {help.phases.map(({ id, label, startsOn }) => (
          <li key={id} className="flex items-center gap-3 border-b border-rule py-1.5 text-small">
            <span className="grow">{didItHelpSectionWords.since(label, shortDate(startsOn))}</span>
            <fetcher.Form method="post">
              <input type="hidden" name="id" value={id} />
              <button
                type="submit"
                name="intent"
                value="removePhase"
                className="btn btn-sm"
                aria-label={didItHelpSectionWords.removeNamed(label)}
              >
                {didItHelpSectionWords.remove}
              </button>
            </fetcher.Form>
          </li>
        ))}
      </ul>
      <details className="mt-1" open={(form.errors?.length ?? 0) > 0 || undefined}>
        <summary className="tap cursor-pointer py-2 text-small link">{didItHelpSectionWords.somethingChanged}</summary>
        <SchemaForm
          form={form}
          as={fetcher.Form}
          className="mt-2 grid gap-3 rounded-box bg-wash p-3 sm:grid-cols-[1fr_10rem_12rem_auto] sm:items-start"
        >
          <input type="hidden" name="id" value={newPhaseId} />
          <TextField
            field={fields.label}
            label={didItHelpSectionWords.whatChanged}
            placeholder={didItHelpSectionWords.earDefenders}
          />
          <TextField field={fields.startsOn} label={didItHelpSectionWords.from} type="date" />
          <SelectField
            field={fields.behaviorId}
            label={didItHelpSectionWords.for}
            none={didItHelpSectionWords.everyBehavior}
            options={[behavior]}
          />
          <button type="submit" name="intent" value="addPhase" className="btn sm:mt-6">
            {didItHelpSectionWords.writeItDown}
          </button>
        </SchemaForm>
      </details>
    </div>
  );
}
