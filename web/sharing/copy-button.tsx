import { useState } from 'react';
import { copyWords } from './words';

/** Copies a text. Where the browser lets no page do that (over plain http, or not allowed), the button says how it is done. */
export function CopyButton({ text }: { text: string }) {
  const [state, setState] = useState<keyof typeof copyWords>('ready');
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text);
      setState('copied');
    } catch {
      setState('refused');
    }
  };
  return (
    <button type="button" className="btn" aria-live="polite" onClick={copy}>
      {copyWords[state]}
    </button>
  );
}
