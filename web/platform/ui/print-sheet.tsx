import type { ReactNode } from 'react';

/** On paper, repeats a line at the head of every page, so that each page stands alone and names its one student. */
export function PrintSheet({ head, children }: { head: string; children: ReactNode }) {
  return (
    <div className="print:table print:w-full">
      <div aria-hidden className="hidden break-inside-avoid print:table-header-group">
        <div className="border-b border-rule pb-2 text-small font-semibold">{head}</div>
      </div>
      <div className="print:table-row-group">{children}</div>
    </div>
  );
}
