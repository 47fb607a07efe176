import { useState } from 'react';
import { Link } from 'react-router';
import { longDate, shortDate } from '~/core/calendar/iso-date';
import { counted } from '~/core/words/counting';
import { AnswerForm } from '../sharing/thread';
import type { OpenedReport } from './read';
import { firstPageWords } from './words';

type Report = Pick<OpenedReport, 'atFirst' | 'news' | 'issued' | 'entries' | 'kind' | 'here'>;

/** The progress reports, and a place to write: what a reader on a phone would else look for below everything. */
export function NearTheTop({ report }: { report: Report }) {
  const { issued, kind, entries, here } = report;
  const [isOpen, setOpen] = useState(false);
  const about = entries
    .filter((entry) => entry.kind !== 'reflection')
    .map(({ id, title, on }) => ({ id, name: `${shortDate(on)}, ${title}` }));
  const mayWrite = kind === 'student' || (kind === 'family' && about.length > 0);
  if (issued.length === 0 && !mayWrite) return null;
  return (
    <div className="no-print mt-3 flex flex-wrap items-center gap-x-8 gap-y-3">
      {issued.length > 0 && (
        <section aria-label={firstPageWords.progressReports}>
          <h2 className="text-base font-semibold">{firstPageWords.progressReports}</h2>
          <ul>
            {issued.map(({ id, label, said }) => (
              <li key={id}>
                <Link to={`${here}/issued/${id}`} className="inline-flex tap items-center font-semibold link">
                  {label}
                </Link>
                <span className="ml-2 text-small text-ink-2">{said}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {mayWrite &&
        (isOpen ? (
          <div className="w-full">
            <AnswerForm
              entryId={null}
              word={kind === 'student' ? 'reflection' : 'comment'}
              mayState={kind === 'family'}
              about={kind === 'family' ? about : []}
              onDone={() => setOpen(false)}
            />
          </div>
        ) : (
          <button type="button" className="btn" onClick={() => setOpen(true)}>
            {kind === 'student' ? firstPageWords.addAReflection : firstPageWords.writeToTheTeam}
          </button>
        ))}
    </div>
  );
}

/** The student’s goals, before anything else: where they stand, in plain words. */
export function GoalsAtFirst({ goals }: { goals: Report['atFirst'] }) {
  if (goals.length === 0) return null;
  return (
    <section aria-label={firstPageWords.goals} className="mt-6">
      <h2 className="text-2xl">{firstPageWords.goals}</h2>
      <ul className="grid gap-x-8 lg:grid-cols-2 print:block">
        {goals.map(({ goalId, title, wording, stands, decision, target, evidence, drawing }) => (
          <li key={goalId} className="break-inside-avoid border-b border-rule py-4">
            <h3 className="text-lg">{title}</h3>
            <p className="mt-0.5">{wording}</p>
            {stands && <p className="mt-2 font-semibold">{stands}</p>}
            {decision && (
              <p>
                <span aria-hidden>{decision.mark} </span>
                <span className="font-semibold">{decision.label}.</span> {decision.means}
              </p>
            )}
            <p className="mt-1 text-small text-ink-2">{firstPageWords.target(target)}</p>
            <p className="text-small text-ink-2">{evidence}</p>
            {drawing && (
              <figure className="mt-2">
                <img
                  src={drawing.src}
                  alt={drawing.caption}
                  width={340}
                  height={104}
                  className="w-full max-w-xl rounded-field bg-white p-1"
                />
                <figcaption className="text-small text-ink-2">
                  {drawing.caption}{' '}
                  <details className="no-print inline">
                    <summary className="inline cursor-pointer link">{firstPageWords.whatTheMarksMean}</summary>{' '}
                    {drawing.key}
                  </details>
                  <span className="hidden print:inline">{drawing.key}</span>
                </figcaption>
              </figure>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What was recorded since this reader last looked, on a day before this one. */
export function News({ news }: { news: Report['news'] }) {
  if (!news) return null;
  const more = news.total - news.entries.length;
  return (
    <section aria-label={firstPageWords.new} className="no-print mt-8">
      <h2 className="text-2xl">{firstPageWords.newSince(longDate(news.since))}</h2>
      {news.total === 0 ? (
        <p className="mt-1 text-ink-2">{firstPageWords.nothingNew}</p>
      ) : (
        <ul className="mt-1">
          {news.entries.map(({ id, on, title, sentence }) => (
            <li key={id} className="border-b border-dotted border-ink-3/50 py-2">
              <a href={`#${id}`} className="font-semibold link">
                {shortDate(on)}, {title}
              </a>{' '}
              {sentence}
            </li>
          ))}
        </ul>
      )}
      {more > 0 && (
        <p className="mt-1 text-small text-ink-2">
          {news.isMore ? firstPageWords.manyMore : firstPageWords.more(counted(more, 'entry', 'entries'))}
        </p>
      )}
    </section>
  );
}
