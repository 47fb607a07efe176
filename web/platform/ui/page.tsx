import { PanelBottomOpen } from 'lucide-react';
import { type ReactNode, useCallback, useEffect, useId, useRef, useState } from 'react';
import { useAtFoot } from './at-foot';
import type { HelpPage } from './help-words';
import { HowThisWorks } from './how-this-works';
import { pageWords } from './words';

interface PageProps {
  margin: ReactNode;
  marginName: string;
  /** Which help stands at the foot of the margin; none on pages of one short form. */
  help?: HelpPage;
  children: ReactNode;
}

/**
 * A page and its margin. The page shows the picture; the margin says what was written about it. Below 1024 px the margin
 * lies under the page, and opens over it from wherever one is.
 */
export function Page({ margin, marginName, help, children }: PageProps) {
  const { isOpen, aside, handle, open, close } = useDrawer();
  const id = useId();
  useAtFoot('margin-handle');
  return (
    <div className="grid min-h-full grid-cols-1 lg:grid-cols-[minmax(0,1fr)_20.25rem] print:block">
      <main id="page" tabIndex={-1} className="min-w-0 px-4 py-5 outline-none sm:px-8 print:p-0">
        {children}
      </main>
      <button
        ref={handle}
        type="button"
        aria-expanded={isOpen}
        aria-controls={id}
        onClick={open}
        className="margin-handle no-print"
      >
        <PanelBottomOpen size={16} aria-hidden />
        <span className="truncate">{marginName}</span>
      </button>
      <aside
        ref={aside}
        id={id}
        aria-label={marginName}
        tabIndex={-1}
        data-open={isOpen || undefined}
        className="margin-rule no-print px-4 py-6 outline-none sm:px-5"
      >
        {isOpen && (
          <button type="button" className="btn btn-sm float-right" onClick={close}>
            {pageWords.closeTheMargin}
          </button>
        )}
        {margin}
        {help && <HowThisWorks of={help} />}
      </aside>
    </div>
  );
}

/** The margin as a drawer: Escape and a tap beside it close it, and the focus goes back to where it was opened. */
function useDrawer() {
  const [isOpen, setOpen] = useState(false);
  const aside = useRef<HTMLElement>(null);
  const handle = useRef<HTMLButtonElement>(null);
  const close = useCallback(() => {
    setOpen(false);
    handle.current?.focus({ preventScroll: true });
  }, []);
  useEffect(() => {
    if (!isOpen) return;
    aside.current?.focus({ preventScroll: true });
    const tapBeside = ({ target }: PointerEvent) => {
      if (target instanceof Node && !aside.current?.contains(target)) setOpen(false);
    };
    const byEscape = ({ key }: KeyboardEvent) => {
      if (key === 'Escape' && !document.querySelector('dialog[open]')) close();
    };
    document.addEventListener('pointerdown', tapBeside);
    document.addEventListener('keydown', byEscape);
    return () => {
      document.removeEventListener('pointerdown', tapBeside);
      document.removeEventListener('keydown', byEscape);
    };
  }, [isOpen, close]);
  return { isOpen, aside, handle, open: () => setOpen(true), close };
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
