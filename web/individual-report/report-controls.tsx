import { Search } from 'lucide-react';
import { useEffect, useId, useRef } from 'react';
import { Form, useNavigation, useSearchParams } from 'react-router';
import type { IsoDate } from '~/core/calendar/iso-date';
import { stretchWords } from '~/core/individual-report/report';
import type { Arrangement } from '~/core/sharing/visibility-rule';
import { GoalFilter } from './goal-filter';
import { reportControlsWords } from './words';

interface ReportControlsProps {
  goals: readonly { id: string; number: string; shortName: string }[];
  goal: string | null;
  hasBehavior: boolean;
  find: string;
  arrangement: Arrangement;
  today: IsoDate;
  /** The stretch that is shown; null for no such end. */
  from: IsoDate | null;
  to: IsoDate | null;
}

/** What of the report is shown, and how: each choice is part of the page’s address. */
export function ReportControls({ goals, goal, hasBehavior, find, arrangement, today, from, to }: ReportControlsProps) {
  const [shown, setSearch] = useSearchParams();
  const { state } = useNavigation();
  // What was chosen a moment ago holds too, though its page is still on its way.
  const latest = useRef(shown);
  useEffect(() => {
    if (state === 'idle') latest.current = shown;
  }, [state, shown]);
  const ask = (change: (asked: URLSearchParams) => void) => {
    const asked = new URLSearchParams(latest.current);
    change(asked);
    latest.current = asked;
    setSearch(asked, { preventScrollReset: true });
  };
  const findId = useId();
  const choose = (changes: Record<string, string | null>) =>
    ask((asked) => {
      for (const name of ['page', 'day']) asked.delete(name);
      for (const [name, value] of Object.entries(changes)) {
        if (value) asked.set(name, value);
        else asked.delete(name);
      }
    });
  return (
    <div className="no-print mt-4 flex flex-wrap items-center gap-x-4 gap-y-2 text-small">
      <GoalFilter
        goals={goals}
        chosen={goal}
        hasBehavior={hasBehavior}
        onChoose={(chosen) => choose({ goal: chosen })}
      />
      <Form
        role="search"
        className="flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          choose({ find: String(new FormData(event.currentTarget).get('find') ?? '') });
        }}
      >
        <label htmlFor={findId} className="font-semibold">
          {reportControlsWords.find}
        </label>
        <span className="join">
          <input
            id={findId}
            key={find}
            type="search"
            name="find"
            defaultValue={find}
            maxLength={200}
            placeholder={reportControlsWords.aWordInIt}
            className="input join-item w-36"
          />
          <button type="submit" aria-label={reportControlsWords.findInTheReport} className="btn join-item px-3">
            <Search size={16} aria-hidden />
          </button>
        </span>
      </Form>
      <details className="relative">
        <summary className="btn">{from || to ? stretchWords(from, to, today) : reportControlsWords.allDays}</summary>
        <Form
          className="absolute right-0 z-20 mt-1 grid w-64 gap-3 rounded-box border border-rule bg-sheet p-4 shadow-lg max-sm:left-0"
          onSubmit={(event) => {
            event.preventDefault();
            const dates = new FormData(event.currentTarget);
            choose({ from: String(dates.get('from') ?? ''), to: String(dates.get('to') ?? '') });
          }}
        >
          {(['from', 'to'] as const).map((name) => (
            <label key={name} className="grid gap-1">
              <span className="font-semibold">
                {name === 'from' ? reportControlsWords.from : reportControlsWords.to}
              </span>
              <input
                type="date"
                name={name}
                key={name === 'from' ? from : to}
                defaultValue={(name === 'from' ? from : to) ?? ''}
                max={today}
                className="input w-full"
              />
            </label>
          ))}
          <div className="flex gap-2">
            <button type="submit" className="btn">
              {reportControlsWords.showTheseDays}
            </button>
            {(from || to) && (
              <button type="button" className="btn btn-ghost" onClick={() => choose({ from: null, to: null })}>
                {reportControlsWords.allDays}
              </button>
            )}
          </div>
        </Form>
      </details>
      <details className="relative">
        <summary className="btn">{reportControlsWords.arrange}</summary>
        <div className="absolute right-0 z-20 mt-1 grid w-64 gap-3 rounded-box border border-rule bg-sheet p-4 shadow-lg max-sm:left-0">
          <Choice
            label={reportControlsWords.as}
            value={arrangement.layout}
            options={{
              sentences: reportControlsWords.sentences,
              table: reportControlsWords.aTable,
              cards: reportControlsWords.cards,
            }}
            onChoose={(as) => choose({ as })}
          />
          <Choice
            label={reportControlsWords.grouped}
            value={arrangement.grouping}
            options={{
              week: reportControlsWords.byWeek,
              goal: reportControlsWords.byGoal,
              none: reportControlsWords.notAtAll,
            }}
            onChoose={(by) => choose({ by })}
          />
          <Choice
            label={reportControlsWords.order}
            value={arrangement.oldestFirst ? 'oldest' : 'newest'}
            options={{ newest: reportControlsWords.newestFirst, oldest: reportControlsWords.oldestFirst }}
            onChoose={(order) => choose({ order })}
          />
          <Form method="get" onSubmit={(event) => event.preventDefault()}>
            <label className="grid gap-1">
              <span className="font-semibold">{reportControlsWords.goToADay}</span>
              <input
                type="date"
                max={today}
                className="input w-full"
                onChange={(event) => {
                  const day = event.target.value;
                  if (day) {
                    ask((asked) => {
                      asked.delete('page');
                      asked.set('day', day);
                    });
                  }
                }}
              />
            </label>
          </Form>
        </div>
      </details>
    </div>
  );
}

interface ChoiceProps {
  label: string;
  value: string;
  options: Record<string, string>;
  onChoose: (value: string) => void;
}

function Choice({ label, value, options, onChoose }: ChoiceProps) {
  return (
    <label className="grid gap-1">
      <span className="font-semibold">{label}</span>
      <select className="select w-full" value={value} onChange={(event) => onChoose(event.target.value)}>
        {Object.entries(options).map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}
