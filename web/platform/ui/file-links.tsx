import * as RovingFocus from '@radix-ui/react-roving-focus';
import { Link } from 'react-router';
import { formats } from '~/core/documents/file-name';
import { fileLinksWords } from './words';

interface FileLinksProps {
  /** The address of a page's files, to which the format is added. */
  of: string;
  /** What the page is narrowed to, as its address says it. */
  search?: string;
}

/** What a page can be taken away as: one stop of the Tab key, within which the arrow keys go on. */
export function FileLinks({ of, search = '' }: FileLinksProps) {
  return (
    <RovingFocus.Root loop role="group" aria-label={fileLinksWords.takeItAwayAs} className="flex items-center gap-3">
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
    </RovingFocus.Root>
  );
}
