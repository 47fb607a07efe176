import * as RadixToast from '@radix-ui/react-toast';
import { X } from 'lucide-react';
import { Link, useSubmit } from 'react-router';
import type { Toast } from '../http/cookies';
import { toastsWords } from './words';

/** In milliseconds: long enough to read it, and to take it back. */
const SHOWN_FOR = 10_000;

interface ToastViewProps {
  toast: Toast & { id: number };
  isOpen: boolean;
  onOpenChange: (isOpen: boolean) => void;
}

/** One sentence that is said out of the way of the hands; with what it was about, and what takes it back. */
export default function ToastView({ toast, isOpen, onOpenChange }: ToastViewProps) {
  return (
    <RadixToast.Provider duration={SHOWN_FOR} label={toastsWords.doneJustNow}>
      <RadixToast.Root
        key={toast.id}
        open={isOpen}
        onOpenChange={onOpenChange}
        className="no-print flex items-center gap-4 rounded-box bg-neutral px-4 py-3 text-neutral-content shadow-lg"
      >
        <RadixToast.Title>{toast.text}</RadixToast.Title>
        {toast.link && (
          <RadixToast.Action asChild altText={toast.link.label}>
            <Link to={toast.link.to} className="font-semibold link">
              {toast.link.label}
            </Link>
          </RadixToast.Action>
        )}
        {toast.undo && <Undo {...toast.undo} onDone={() => onOpenChange(false)} />}
        <RadixToast.Close aria-label={toastsWords.close} className="rounded p-1">
          <X size={16} aria-hidden />
        </RadixToast.Close>
      </RadixToast.Root>
      <RadixToast.Viewport className="no-print fixed bottom-4 left-4 z-50 m-0 flex max-w-[92vw] list-none flex-col gap-2 p-0 max-sm:bottom-[calc(var(--thumb)+5.5rem)]" />
    </RadixToast.Provider>
  );
}

/** Takes back what was saved just now. Its own sentence takes the place of this one. */
function Undo({ at, ids, onDone }: NonNullable<Toast['undo']> & { onDone: () => void }) {
  const submit = useSubmit();
  const undo = () => {
    void submit({ ids: ids.join('.') }, { method: 'post', action: at, navigate: false });
    onDone();
  };
  return (
    <button type="button" className="font-semibold link" onClick={undo}>
      {toastsWords.undo}
    </button>
  );
}
