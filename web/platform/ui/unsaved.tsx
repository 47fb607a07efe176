import { useEffect, useId, useSyncExternalStore } from 'react';
import { useBeforeUnload, useBlocker } from 'react-router';
import { Dialog } from './dialog';
import { unsavedWords } from './words';

/** The forms on the page in which something was typed that is not saved, in the order in which it was typed. */
const unsaved: string[] = [];
const listeners = new Set<() => void>();

function listen(listener: () => void) {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

function say(id: string, isUnsaved: boolean) {
  const at = unsaved.indexOf(id);
  if (isUnsaved === at >= 0) return;
  if (isUnsaved) unsaved.push(id);
  else unsaved.splice(at, 1);
  for (const listener of listeners) listener();
}

/** Asks before one leaves a form in which something was typed that is not saved: once, however many forms there are. */
export function Unsaved({ isUnsaved }: { isUnsaved: boolean }) {
  const id = useId();
  useEffect(() => {
    say(id, isUnsaved);
    return () => say(id, false);
  }, [id, isUnsaved]);
  const isFirst = useSyncExternalStore(
    listen,
    () => unsaved[0] === id,
    () => false,
  );
  return isFirst ? <AskBeforeLeaving /> : null;
}

function AskBeforeLeaving() {
  const blocker = useBlocker(({ currentLocation: from, nextLocation: to }) => {
    return from.pathname !== to.pathname || from.search !== to.search;
  });
  useBeforeUnload((event) => event.preventDefault());
  if (blocker.state !== 'blocked') return null;
  return (
    <Dialog title={unsavedWords.leave} onClose={() => blocker.reset()}>
      <div className="p-6">
        <h2 className="text-xl">{unsavedWords.leave}</h2>
        <p className="mt-2 text-ink-2">{unsavedWords.itIsNotSaved}</p>
        <div className="mt-5 flex flex-wrap justify-end gap-2">
          <button type="button" className="btn" onClick={() => blocker.proceed()}>
            {unsavedWords.leaveWithout}
          </button>
          <button type="button" className="btn btn-primary" onClick={() => blocker.reset()}>
            {unsavedWords.stay}
          </button>
        </div>
      </div>
    </Dialog>
  );
}
