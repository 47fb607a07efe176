import { useEffect } from 'react';
import { useLocation, useRevalidator } from 'react-router';
import { isKeptWhole, useKeptAt, useWorker } from './connection';
import { useWaiting } from './waiting';
import { keptNoticeWords } from './words';

/** While there is no connection: how often it is looked whether there is one again, in milliseconds. */
const LOOK_AGAIN = 10_000;

/** Where something is being recorded, nothing is replaced under the hands. */
const RECORDING = /\/(observe|new|table|edit)$|^\/rounds\/./;

/** Whether something is written on a page, with its own bar to save it. */
export const isRecording = (path: string): boolean => RECORDING.test(path) && path !== '/incidents/new';

/** Says that what is shown was kept on this device, and that a newer version has come. */
export function KeptNotice() {
  const keptAt = useKeptAt();
  const takeOver = useWorker();
  const { pathname } = useLocation();
  const { revalidate, state } = useRevalidator();
  const { sendNow } = useWaiting();
  useEffect(() => {
    // Drawn from a page that was kept as a whole: of its data something newer may be kept.
    if (isKeptWhole()) void revalidate();
  }, [revalidate]);
  useEffect(() => {
    if (keptAt === null) return;
    const look = async () => {
      const answer = await fetch('/health').catch(() => null);
      if (!answer?.ok) return;
      sendNow();
      void revalidate();
    };
    const timer = setInterval(look, LOOK_AGAIN);
    addEventListener('online', look);
    return () => {
      clearInterval(timer);
      removeEventListener('online', look);
    };
  }, [keptAt, revalidate, sendNow]);
  if (keptAt !== null) {
    return (
      <Notice>
        <span>
          <strong>{keptNoticeWords.noConnection}</strong> {keptNoticeWords.thisIsAsOf(momentOf(keptAt))}
        </span>
        <button type="button" className="btn btn-sm" disabled={state !== 'idle'} onClick={() => revalidate()}>
          {keptNoticeWords.tryAgain}
        </button>
      </Notice>
    );
  }
  if (!takeOver || isRecording(pathname)) return null;
  return (
    <Notice>
      <span>{keptNoticeWords.aNewVersionIsReady}</span>
      <button type="button" className="btn btn-sm" onClick={takeOver}>
        {keptNoticeWords.useItNow}
      </button>
    </Notice>
  );
}

function Notice({ children }: { children: React.ReactNode }) {
  return (
    <div
      role="status"
      className="no-print flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule bg-wash px-4 py-1.5 text-small"
    >
      {children}
    </div>
  );
}

function momentOf(at: number): string {
  const then = new Date(at);
  const time = then.toLocaleTimeString('en-US', { hour: 'numeric', minute: '2-digit' });
  const isToday = then.toDateString() === new Date().toDateString();
  return isToday
    ? time
    : `${then.toLocaleDateString('en-US', { weekday: 'short', month: 'short', day: 'numeric' })}, ${time}`;
}
