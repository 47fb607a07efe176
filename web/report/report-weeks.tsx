import { Link } from 'react-router';
import { type IsoDate, longDate, shortDate } from '~/core/calendar/iso-date';
import { groupByWeek } from '~/core/report/weeks';
import { Beads } from '../ui/beads';
import { pageOf, type ShownEntry } from './shown-entry';

interface ReportWeeksProps {
  entries: readonly ShownEntry[];
  today: IsoDate;
  /** Whether entries lead to their own page: not for readers from outside. */
  linksToEntries: boolean;
}

/** Every entry as a line in sentences, by week, newest first. */
export function ReportWeeks({ entries, today, linksToEntries }: ReportWeeksProps) {
  return groupByWeek(entries).map(({ monday, entries: week }) => (
    <section key={monday} className="mt-7 break-inside-auto">
      <h2 className="border-b border-rule pb-1.5 text-lg">
        Week of {shortDate(monday)}
        {monday.slice(0, 4) !== today.slice(0, 4) && `, ${monday.slice(0, 4)}`}
      </h2>
      <ol>
        {week.map((entry) => (
          <li
            key={entry.id}
            className="grid break-inside-avoid gap-x-5 border-b border-dotted border-ink-3/40 py-3 sm:grid-cols-[7.5rem_minmax(0,1fr)]"
          >
            <p className="text-small text-ink-2">
              <span className="block font-semibold">{longDate(entry.on).replace(/, \d{4}$/, '')}</span>
              {[entry.time, entry.setting].filter(Boolean).join(' · ')}
              {entry.observer && <span className="block">{entry.observer}</span>}
            </p>
            <div>
              <p className="font-bold">
                {linksToEntries ? (
                  <Link to={pageOf(entry)} className="hover:underline">
                    {entry.title}
                  </Link>
                ) : (
                  entry.title
                )}
                {entry.isCorrected && <span className="ml-2 text-small font-normal text-ink-3">corrected</span>}
                {entry.isSecond && <span className="ml-2 text-small font-normal text-ink-3">second observer</span>}
              </p>
              <Beads tones={entry.tones} />
              <p>{entry.sentence}</p>
              {entry.note && <p className="mt-0.5 whitespace-pre-line text-ink-2">{entry.note}</p>}
            </div>
          </li>
        ))}
      </ol>
    </section>
  ));
}
