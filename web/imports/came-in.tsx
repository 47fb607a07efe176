import { useState } from 'react';
import { Form, Link } from 'react-router';
import type { ImportKindName } from '~/core/imports/kinds';
import { counted } from '~/core/words/counting';
import { Dialog } from '../platform/ui/dialog';
import { importWords } from './words';

interface CameInProps {
  kind: ImportKindName;
  parts: number;
  doneOn: string | null;
  undoneOn: string | null;
}

/** What came of a file that was imported: where to go on, and how to take it back. */
export function CameIn({ kind, parts, doneOn, undoneOn }: CameInProps) {
  const [isAsking, setAsking] = useState(false);
  const [to, name] = importWords.next[kind];
  return (
    <div className="mt-5 grid max-w-2xl justify-items-start gap-5 pb-20">
      <p>{doneOn && importWords.cameIn(counted(parts, 'row', 'rows'), doneOn)}</p>
      {undoneOn ? (
        <p className="font-semibold">{importWords.wasUndone(undoneOn)}</p>
      ) : (
        <>
          <Link to={to} className="btn btn-primary">
            {name}
          </Link>
          <button type="button" className="btn" onClick={() => setAsking(true)}>
            {importWords.undo}
          </button>
        </>
      )}
      {isAsking && (
        <Dialog title={importWords.undoTitle} onClose={() => setAsking(false)}>
          <div className="grid gap-4 p-6">
            <h2 className="text-xl">{importWords.undoTitle}</h2>
            <p>{importWords.undoAbout[kind]}</p>
            <Form method="post" className="flex flex-wrap gap-3" onSubmit={() => setAsking(false)}>
              <button type="submit" name="intent" value="undo" className="btn btn-primary">
                {importWords.undo}
              </button>
              <button type="button" className="btn" onClick={() => setAsking(false)}>
                {importWords.keep}
              </button>
            </Form>
          </div>
        </Dialog>
      )}
    </div>
  );
}

/** What each of those who were asked to join opens, where no mail brings it. */
export function PassOn({ links }: { links: readonly { name: string; text: string }[] }) {
  return (
    <section aria-label={importWords.passOn} className="mt-4 rounded-box border border-fern bg-fern-wash p-4">
      <h2 className="text-lg">{importWords.passOn}</h2>
      <p className="mt-1 text-small">{importWords.passOnAbout}</p>
      <ul className="mt-3 grid gap-2">
        {links.map(({ name, text }) => (
          <li key={text} className="grid items-center gap-x-4 sm:grid-cols-[12rem_1fr]">
            <span className="text-small font-semibold">{name}</span>
            <input
              readOnly
              aria-label={importWords.linkOf(name)}
              value={text}
              onFocus={(event) => event.target.select()}
              className="input w-full"
            />
          </li>
        ))}
      </ul>
    </section>
  );
}
