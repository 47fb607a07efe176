import * as RovingFocus from '@radix-ui/react-roving-focus';
import { Printer } from 'lucide-react';
import { Link } from 'react-router';
import { formats } from '~/core/documents/file-name';
import { fileLinksWords } from './words';

interface FileLinksProps {
  /** The address of a page's files, to which the format is added. */
  of: string;
  /** What the page is narrowed to, as its address says it. */
  search?: string;
  /** What the page's own print button says, where it has one. */
  prints?: string;
}

/** What a page can be taken away as: one stop of the Tab key, within which the arrow keys go on. */
export function FileLinks({ of, search = '', prints }: FileLinksProps) {
  return (
    <RovingFocus.Root
      loop
      role="group"
      aria-label={fileLinksWords.takeItAwayAs}
      className="flex flex-wrap items-center gap-3"
    >
      {formats.map((format) => (
        <RovingFocus.Item key={format} asChild>
          <Link
            to={`${of}/as/${format}${search && `?${search}`}`}
            reloadDocument
            className="flex tap items-center link"
          >
            {format.toUpperCase()}
          </Link>
        </RovingFocus.Item>
      ))}
      {prints && (
        <RovingFocus.Item asChild>
          <button type="button" className="btn" onClick={() => window.print()}>
            <Printer size={16} aria-hidden />
            {prints}
          </button>
        </RovingFocus.Item>
      )}
    </RovingFocus.Root>
  );
}
