import { createContext, lazy, type ReactNode, Suspense, useCallback, useContext, useEffect, useState } from 'react';
import type { Toast } from '../http/cookies';
import { NOT_SENT } from '../offline/unreachable';
import { toastsWords } from './words';

const SayContext = createContext<(text: string) => void>(() => {});

/** Says a sentence that only the page knows, as the server’s are said. */
export const useSay = () => useContext(SayContext);

/** Without network its look may not be there yet: the sentence is said all the same. */
function PlainToast({ toast, isOpen }: { toast: Toast; isOpen: boolean }) {
  if (!isOpen) return <span hidden />;
  return (
    <p role="status" className={plainLook}>
      {toast.text}
    </p>
  );
}
const plainLook = 'no-print fixed bottom-24 left-4 z-50 rounded-box bg-neutral px-4 py-3 text-neutral-content';

const loadView = () => import('./toast-view').catch(() => ({ default: PlainToast }));
const ToastView = lazy(loadView);
/** In milliseconds: once the page that one came for is there. */
const SOON = 1500;

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
  useEffect(() => {
    // While it can still be fetched: what is said without the server is said by it too.
    const timer = setTimeout(() => loadView(), SOON);
    return () => clearTimeout(timer);
  }, []);
  return (
    <>
      <SayContext value={say}>{children}</SayContext>
      {shown && (
        <Suspense>
          <ToastView toast={shown} isOpen={isOpen} onOpenChange={setOpen} />
        </Suspense>
      )}
    </>
  );
}
