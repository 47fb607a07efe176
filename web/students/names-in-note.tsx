import { useEffect, useState } from 'react';
import { listed } from '~/core/words/counting';
import { namesInNoteWords } from './words';

/** After so long without a key the text is looked at. */
const PAUSE = 700;

/**
 * Points out, while a note is being written, that it names another child. Nothing is forbidden: readers from outside will see “a
 * classmate”. Without the server it says nothing.
 */
export function NamesInNote({ studentId, text }: { studentId: string; text: string }) {
  const [names, setNames] = useState<string[]>([]);
  useEffect(() => {
    if (text.trim() === '') {
      setNames([]);
      return;
    }
    const aborter = new AbortController();
    const timer = setTimeout(async () => {
      try {
        const answer = await fetch(`/students/${studentId}/names`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify({ text }),
          signal: aborter.signal,
        });
        // Said by our own route of that address.
        if (answer.ok) setNames(((await answer.json()) as { names: string[] }).names);
      } catch {
        // Without the server, or while somebody goes on writing, there is nothing to say.
      }
    }, PAUSE);
    return () => {
      clearTimeout(timer);
      aborter.abort();
    };
  }, [studentId, text]);
  return (
    <p role="status" className="text-small text-clay-deep">
      {names.length > 0 && namesInNoteWords.anotherChild(listed(names.map((name) => `“${name}”`)))}
    </p>
  );
}
