import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { dateSeenFrom, entryDay, type IsoDate } from '~/core/calendar/iso-date';
import type { Evidence } from '~/core/entries/evidence';
import { groupEntries } from '~/core/individual-report/groups';
import type { Comment } from '~/core/sharing/comment';
import type { Arrangement } from '~/core/sharing/visibility-rule';
import { EvidenceList } from '../entries/evidence/evidence-list';
import { pageOf } from '../entries/page-of';
import type { ShownEntry } from '../entries/shown-entry';
import { EntryMarks } from '../platform/ui/entry-marks';
import { TrialMarks } from '../platform/ui/trial-marks';
import { Thread } from '../sharing/thread';
import { reportEntriesWords } from './words';

interface ReportEntriesProps {
  entries: readonly ShownEntry[];
  threads: Record<string, Comment[]>;
  evidence: Record<string, Evidence[]>;
  /** Where photographs and files are found. */
  evidenceAt: string;
  goals: readonly { id: string; number: string; shortName: string }[];
  arrangement: Pick<Arrangement, 'layout' | 'grouping'>;
  today: IsoDate;
  /** Whether entries lead to their own page: not for readers from outside. */
  linksToEntries: boolean;
  /** What this reader may do with what is said of an entry. */
  answers: {
    mayAnswer: boolean;
    mayHide: boolean;
    word: 'comment' | 'reflection';
    seenBy: string;
    /** Whether a family may state something that stays, or ask for an amendment. */
    mayState?: boolean;
  };
}

type LineProps = Pick<ReportEntriesProps, 'linksToEntries' | 'answers' | 'today'> & {
  entry: ShownEntry;
  thread: readonly Comment[];
  evidence: readonly Evidence[];
  evidenceAt: string;
};

/** Every entry as a line in sentences, as a row of a table, or as a card of its own. */
export function ReportEntries(props: ReportEntriesProps) {
  const { entries, threads, evidence, evidenceAt, goals, arrangement, today, linksToEntries, answers } = props;
  const line = (entry: ShownEntry) => ({
    ...{ entry, linksToEntries, answers, evidenceAt, today },
    thread: threads[entry.id] ?? [],
    evidence: evidence[entry.id] ?? [],
  });
  return groupEntries(entries, arrangement.grouping, goals, today).map(({ key, title, entries: group }) => (
    <section key={key} className="report-group mt-7 break-inside-auto">
      {title && <h2 className="border-b border-rule pb-1.5 text-lg">{title}</h2>}
      {arrangement.layout === 'sentences' && (
        <ol>
          {group.map((entry) => (
            <SentenceLine key={entry.id} {...line(entry)} />
          ))}
        </ol>
      )}
      {arrangement.layout === 'cards' && (
        <ol className="mt-3 grid gap-3 sm:grid-cols-2 print:grid-cols-2">
          {group.map((entry) => (
            <EntryCard key={entry.id} {...line(entry)} />
          ))}
        </ol>
      )}
      {arrangement.layout === 'table' && (
        <EntryTable title={title ?? reportEntriesWords.entries} lines={group.map(line)} />
      )}
    </section>
  ));
}

function Title({ entry, linksToEntries }: Pick<LineProps, 'entry' | 'linksToEntries'>) {
  return (
    <>
      {linksToEntries && entry.kind !== 'reflection' ? (
        <Link to={pageOf(entry)} className="hover:underline">
          {entry.title}
        </Link>
      ) : (
        entry.title
      )}
      {entry.isCorrected && (
        <span className="ml-2 text-small font-normal text-ink-3">{reportEntriesWords.corrected}</span>
      )}
      {entry.isSecond && (
        <span className="ml-2 text-small font-normal text-ink-3">{reportEntriesWords.secondObserver}</span>
      )}
    </>
  );
}

function Said({ entry, thread, evidence, evidenceAt, answers }: Omit<LineProps, 'linksToEntries'>): ReactNode {
  return (
    <>
      <TrialMarks tones={entry.tones} />
      <EntryMarks marks={entry.marks} />
      {entry.sentence && <p>{entry.sentence}</p>}
      {entry.note && <p className="mt-0.5 whitespace-pre-line text-ink-2">{entry.note}</p>}
      {entry.followUps.map((said) => (
        <p key={said} className="mt-0.5 text-small text-ink-2">
          {said}
        </p>
      ))}
      <EvidenceList evidence={evidence} base={evidenceAt} />
      <Thread
        entry={entry}
        comments={thread}
        {...answers}
        mayAnswer={answers.mayAnswer && entry.kind !== 'reflection'}
      />
    </>
  );
}

function SentenceLine({ linksToEntries, ...said }: LineProps) {
  const { entry, today } = said;
  return (
    <li
      id={entry.id}
      className="relative grid break-inside-avoid gap-x-5 border-b border-dotted border-ink-3/40 py-3 sm:grid-cols-[7.5rem_minmax(0,1fr)]"
    >
      <p className="text-small text-ink-2">
        <span className="block font-semibold">{entryDay(entry.on, today)}</span>
        {[entry.time, entry.location].filter(Boolean).join(' · ')}
        {entry.observer && <span className="block">{entry.observer}</span>}
      </p>
      <div>
        <p className="pr-16 font-bold">
          <Title entry={entry} linksToEntries={linksToEntries} />
        </p>
        <Said {...said} />
      </div>
    </li>
  );
}

function EntryCard({ linksToEntries, ...said }: LineProps) {
  const { entry, today } = said;
  return (
    <li id={entry.id} className="relative break-inside-avoid rounded-box border border-rule bg-sheet p-4 pr-20">
      <p className="font-bold">
        <Title entry={entry} linksToEntries={linksToEntries} />
      </p>
      <p className="text-small text-ink-2">
        {[entryDay(entry.on, today), entry.time, entry.location, entry.observer].filter(Boolean).join(' · ')}
      </p>
      <div className="mt-1.5">
        <Said {...said} />
      </div>
    </li>
  );
}

function EntryTable({ title, lines }: { title: string; lines: readonly LineProps[] }) {
  const shows = (field: 'location' | 'observer') => lines.some(({ entry }) => entry[field]);
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by the keyboard
    <section tabIndex={0} aria-label={reportEntriesWords.asATable(title)} className="keeps-head">
      <table className="table table-sm [&_td]:align-top [&_th]:align-top">
        <thead>
          <tr className="text-ink-2">
            <th scope="col">{reportEntriesWords.day}</th>
            <th scope="col">{reportEntriesWords.of}</th>
            <th scope="col">{reportEntriesWords.whatWasSeen}</th>
            {shows('location') && <th scope="col">{reportEntriesWords.where}</th>}
            {shows('observer') && <th scope="col">{reportEntriesWords.observer}</th>}
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={line.entry.id} id={line.entry.id} className="break-inside-avoid align-top">
              <th scope="row" className="font-normal whitespace-nowrap">
                {dateSeenFrom(line.entry.on, line.today)} {line.entry.time}
              </th>
              <td className="min-w-36 font-semibold">
                <Title {...line} />
              </td>
              <td className="relative min-w-64 pr-16">
                <Said {...line} />
              </td>
              {shows('location') && <td className="whitespace-nowrap">{line.entry.location}</td>}
              {shows('observer') && <td className="whitespace-nowrap">{line.entry.observer}</td>}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
