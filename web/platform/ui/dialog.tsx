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
      className="modal items-start"
    >
      <div className="modal-box mt-[12vh] max-w-136 bg-sheet p-0">{children}</div>
    </dialog>
  );
}
