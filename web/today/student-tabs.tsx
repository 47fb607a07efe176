import { Fragment, useEffect, useRef } from 'react';
import { Link, useLocation } from 'react-router';
import type { Tab } from './shell';
import { shellWords } from './words';

/** Views for those who may share. */
const forSharing = new Set(['sharing', 'sharing/visibility', 'sharing/links', 'sharing/access-log', 'team']);

/** Where a tab leads: to the same view of another student. */
function sameViewOf(tab: Tab, pathname: string): string {
  if (!tab.maySee) return `/students/${tab.id}/individual-report`;
  const view =
    /^\/students\/[^/]+\/(individual-report|sharing(?:\/(?:visibility|links|access-log))?|team|observe|behavior|incidents|incidents\/new|counts\/new|notes\/new)$/.exec(
      pathname,
    )?.[1];
  const keeps = view && (tab.mayShare || !forSharing.has(view));
  return `/students/${tab.id}${keeps ? `/${view}` : ''}`;
}

/** The students as the index tabs of a notebook; where there is room with their names, under their groups. */
export function StudentTabs({ tabs }: { tabs: Tab[] }) {
  const { pathname } = useLocation();
  const row = useRef<HTMLElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: on a phone the tabs scroll sideways; each page shows its own
  useEffect(() => {
    const tab = row.current?.querySelector('[aria-current]')?.getBoundingClientRect();
    const seen = row.current?.getBoundingClientRect();
    // Moved within the row alone: what is scrolled into view by its own method is where a browser goes on with Tab.
    if (tab && seen) row.current?.scrollBy({ left: tab.left + tab.width / 2 - seen.left - seen.width / 2 });
  }, [pathname]);
  return (
    <div className="student-tabs no-print shrink-0">
      <nav ref={row} aria-label={shellWords.studentsByTab} className={tabColumn}>
        {tabs.map((tab, at) => {
          const isHere = pathname.startsWith(`/students/${tab.id}`);
          const isFirst = tab.group !== null && tab.group !== tabs[at - 1]?.group;
          return (
            <Fragment key={tab.id}>
              {isFirst && (
                <span aria-hidden className="mt-2 hidden px-3 text-xs text-ink-3 first:mt-0 wide:block">
                  {tab.group}
                </span>
              )}
              <Link
                to={sameViewOf(tab, pathname)}
                aria-current={isHere ? 'true' : undefined}
                aria-label={[
                  tab.initials,
                  tab.name !== tab.initials && tab.name,
                  tab.isDue && shellWords.somethingDueToday,
                ]
                  .filter(Boolean)
                  .join(', ')}
                title={tab.name}
                className={`${tabShape} ${isHere ? 'z-10 bg-paper text-ink sm:ml-1.5' : 'bg-sheet/60 text-ink-2 sm:ml-3'}`}
              >
                {tab.isDue && <span aria-hidden className="absolute top-1.5 left-1.5 size-1.5 rounded-full bg-clay" />}
                <span className="wide:w-7 wide:text-ink-3">{tab.initials}</span>
                {tab.name !== tab.initials && (
                  <span className="hidden truncate font-normal wide:block">{tab.name}</span>
                )}
              </Link>
            </Fragment>
          );
        })}
        {tabs.length === 0 && <p className="p-2 text-center text-xs text-ink-2">{shellWords.noStudentsYet}</p>}
      </nav>
    </div>
  );
}

const tabColumn =
  'flex gap-2 sm:w-16 sm:flex-col sm:pt-3.5 sm:pb-8 wide:w-44 wide:gap-1 max-sm:overflow-x-auto max-sm:border-b max-sm:border-rule max-sm:px-3 max-sm:pt-2';
const tabShape =
  'relative grid h-10.5 shrink-0 place-items-center border border-rule text-small font-bold max-sm:min-w-12 max-sm:rounded-t-xl max-sm:border-b-0 sm:rounded-l-xl sm:border-r-0 wide:h-9 wide:grid-cols-[auto_1fr] wide:justify-items-start wide:gap-1 wide:pr-2 wide:pl-3.5';
