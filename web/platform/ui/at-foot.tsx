import { type ReactNode, useEffect } from 'react';

/** What can stay at the foot of the window while a page is scrolled: the places, what is done most, what saves, the margin’s handle. */
type AtFoot = 'thumb-bar' | 'under-thumb' | 'save-bar' | 'margin-handle';

/**
 * Says of the whole document that something stays at its foot, so that no page ends beneath it (`app.css`). Asked by `:has()`, a browser
 * would look for it again with every tap.
 */
export function useAtFoot(what: AtFoot): void {
  useEffect(() => {
    const root = document.documentElement;
    const mark = `data-${what}`;
    // When one page gives way to another, both may say it for a moment.
    const said = (by: number) => Number(root.getAttribute(mark) ?? 0) + by;
    root.setAttribute(mark, String(said(1)));
    return () => (said(-1) > 0 ? root.setAttribute(mark, String(said(-1))) : root.removeAttribute(mark));
  }, [what]);
}

/** What is done most on a page: beside its heading, and on a phone where the thumb is. */
export function UnderThumb({ children }: { children: ReactNode }) {
  useAtFoot('under-thumb');
  return <div className="under-thumb no-print flex shrink-0 gap-2">{children}</div>;
}
