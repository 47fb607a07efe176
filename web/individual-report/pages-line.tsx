import { Link, useSearchParams } from 'react-router';
import { counted } from '~/core/words/counting';
import { ALL } from './report-search';
import { pagesLineWords } from './words';

interface PagesLineProps {
  page: number;
  pages: number;
  total: number;
  isAll: boolean;
  oldestFirst: boolean;
}

/** Which page of the report this is, and the way to the others. */
export function PagesLine({ page, pages, total, isAll, oldestFirst }: PagesLineProps) {
  const [search] = useSearchParams();
  const to = (at: number | string) => {
    const next = new URLSearchParams(search);
    next.delete('day');
    next.set('page', String(at));
    return `?${next}`;
  };
  const [before, after] = oldestFirst ? ['Earlier', 'Later'] : ['Later', 'Earlier'];
  return (
    <footer className="mt-6 pb-20 text-small text-ink-3 print:pb-0">
      {(pages > 1 || isAll) && (
        <nav aria-label={pagesLineWords.pagesOfTheReport} className="no-print mb-3 flex flex-wrap items-center gap-2">
          {page > 1 && (
            <Link to={to(page - 1)} className="btn" rel="prev">
              {pagesLineWords.entriesBefore(before)}
            </Link>
          )}
          {pages > 1 && <span className="px-2 text-ink-2">{pagesLineWords.pageOf(page, pages)}</span>}
          {page < pages && (
            <Link to={to(page + 1)} className="btn" rel="next">
              {pagesLineWords.entriesAfter(after)}
            </Link>
          )}
          <Link to={to(isAll ? 1 : ALL)} className="btn btn-ghost">
            {isAll ? pagesLineWords.pageByPage : pagesLineWords.allOnOnePage}
          </Link>
        </nav>
      )}
      <p>{pagesLineWords.eachIsShownAsIt(counted(total, 'entry', 'entries'))}</p>
    </footer>
  );
}
