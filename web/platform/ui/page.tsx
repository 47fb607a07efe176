import type { ReactNode } from 'react';
import type { HelpPage } from './help-words';
import { HowThisWorks } from './how-this-works';

interface PageProps {
  margin: ReactNode;
  marginName: string;
  /** Which help stands at the foot of the margin; none on pages of one short form. */
  help?: HelpPage;
  children: ReactNode;
}

/**
 * A page and its margin. The page shows the picture; the margin says what was written about it. Below 1024 px the margin
 * lies under the page.
 */
export function Page({ margin, marginName, help, children }: PageProps) {
  return (
    <div className="grid min-h-full grid-cols-1 lg:grid-cols-[minmax(0,1fr)_20.25rem] print:block">
      <main id="page" tabIndex={-1} className="min-w-0 px-4 py-5 outline-none sm:px-8 print:p-0">
        {children}
      </main>
      <aside aria-label={marginName} className="margin-rule no-print px-4 py-6 sm:px-5">
        {margin}
        {help && <HowThisWorks of={help} />}
      </aside>
    </div>
  );
}

/** The heading of a margin. */
export function MarginTitle({ children, about }: { children: ReactNode; about?: ReactNode }) {
  return (
    <header className="mb-4">
      <h2 className="text-lg">{children}</h2>
      {about && <p className="text-small text-ink-2">{about}</p>}
    </header>
  );
}
