import * as RadixToast from '@radix-ui/react-toast';
import { X } from 'lucide-react';
import { type ReactNode, useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { Toast } from '../http/cookies';

/** Says what has just been done, for a few seconds, out of the way of the hands. */
export function Toasts({ toast, children }: { toast: (Toast & { id: number }) | null; children: ReactNode }) {
  const [shown, setShown] = useState(toast);
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    if (!toast) return;
    setShown(toast);
    setOpen(true);
  }, [toast]);
  return (
    <RadixToast.Provider duration={6000} label="Done just now">
      {children}
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
              <Link to={shown.link.to} className="font-semibold underline underline-offset-2">
                {shown.link.label}
              </Link>
            </RadixToast.Action>
          )}
          <RadixToast.Close aria-label="Close" className="rounded p-1">
            <X size={16} aria-hidden />
          </RadixToast.Close>
        </RadixToast.Root>
      )}
      <RadixToast.Viewport className="no-print fixed bottom-4 left-4 z-50 m-0 flex max-w-[92vw] list-none flex-col gap-2 p-0 max-sm:bottom-24" />
    </RadixToast.Provider>
  );
}
