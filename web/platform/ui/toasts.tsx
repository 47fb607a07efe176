import * as RadixToast from '@radix-ui/react-toast';
import { X } from 'lucide-react';
import { createContext, type ReactNode, useCallback, useContext, useEffect, useState } from 'react';
import { Link, useSubmit } from 'react-router';
import type { Toast } from '../http/cookies';
import { NOT_SENT } from '../offline/unreachable';
import { toastsWords } from './words';

const SayContext = createContext<(text: string) => void>(() => {});

/** Says a sentence that only the page knows, as the server’s are said. */
export const useSay = () => useContext(SayContext);

/** In milliseconds: long enough to read it, and to take it back. */
const SHOWN_FOR = 10_000;

/** Says what has just been done, for a few seconds, out of the way of the hands. */
export function Toasts({ toast, children }: { toast: (Toast & { id: number }) | null; children: ReactNode }) {
  const [shown, setShown] = useState(toast);
  const [isOpen, setOpen] = useState(false);
  const say = useCallback((text: string) => {
    setShown({ text, id: Date.now() });
    setOpen(true);
  }, []);
  useEffect(() => {
    const sayNotSent = () => say(toastsWords.notSent);
    addEventListener(NOT_SENT, sayNotSent);
    return () => removeEventListener(NOT_SENT, sayNotSent);
  }, [say]);
  useEffect(() => {
    if (!toast) return;
    setShown(toast);
    setOpen(true);
  }, [toast]);
  return (
    <RadixToast.Provider duration={SHOWN_FOR} label={toastsWords.doneJustNow}>
      <SayContext value={say}>{children}</SayContext>
      {shown && (
        <RadixToast.Root
          key={shown.id}
          open={isOpen}
          onOpenChange={setOpen}
          className="no-print flex items-center gap-4 rounded-box bg-neutral px-4 py-3 text-neutral-content shadow-lg"
        >
          <RadixToast.Title>{shown.text}</RadixToast.Title>
          {shown.link && (
            <RadixToast.Action asChild altText={shown.link.label}>
              <Link to={shown.link.to} className="font-semibold link">
                {shown.link.label}
              </Link>
            </RadixToast.Action>
          )}
          {shown.undo && <Undo {...shown.undo} onDone={() => setOpen(false)} />}
          <RadixToast.Close aria-label={toastsWords.close} className="rounded p-1">
            <X size={16} aria-hidden />
          </RadixToast.Close>
        </RadixToast.Root>
      )}
      <RadixToast.Viewport className="no-print fixed bottom-4 left-4 z-50 m-0 flex max-w-[92vw] list-none flex-col gap-2 p-0 max-sm:bottom-[calc(var(--thumb)+5.5rem)]" />
    </RadixToast.Provider>
  );
}

/** Takes back what was saved just now. Its own sentence takes the place of this one. */
function Undo({ studentId, ids, onDone }: NonNullable<Toast['undo']> & { onDone: () => void }) {
  const submit = useSubmit();
  const undo = () => {
    void submit({ ids: ids.join('.') }, { method: 'post', action: `/students/${studentId}/undo`, navigate: false });
    onDone();
  };
  return (
    <button type="button" className="font-semibold link" onClick={undo}>
      {toastsWords.undo}
    </button>
  );
}
