import { type ReactNode, useEffect, useRef } from 'react';

/** A native modal dialog that is open as long as it is there. Escape and a tap beside it close it. */
export function Dialog({ title, onClose, children }: { title: string; onClose: () => void; children: ReactNode }) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: Escape closes it too, natively
    <dialog
      ref={dialog}
      aria-label={title}
      onClose={onClose}
      onClick={(event) => event.target === dialog.current && dialog.current.close()}
      className="m-auto mt-[12vh] w-[min(34rem,92vw)] rounded-box border border-rule bg-sheet p-0 text-ink shadow-xl backdrop:bg-neutral/30"
    >
      {children}
    </dialog>
  );
}
