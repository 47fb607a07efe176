import { useEffect } from 'react';
import { isRouteErrorResponse, Link } from 'react-router';

interface Words {
  title: string;
  happened: string;
  next: string;
}

function wordsFor(error: unknown): Words {
  const status = isRouteErrorResponse(error) ? error.status : 500;
  switch (status) {
    case 404:
      return {
        title: 'There is nothing at this address',
        happened: 'It may have been moved, withdrawn or mistyped, or it belongs to someone whose team you are not on.',
        next: 'Go back to your students. If someone sent you a link, ask them for a new one.',
      };
    case 403:
      return {
        title: 'This is not yours to change',
        happened:
          isRouteErrorResponse(error) && typeof error.data === 'string' ? error.data : 'Your role does not allow this.',
        next: 'Nothing was changed. The case manager can.',
      };
    case 422:
      return {
        title: 'This cannot be kept',
        happened:
          isRouteErrorResponse(error) && typeof error.data === 'string' ? error.data : 'Something was not readable.',
        next: 'Nothing was changed. Go back: what you typed is still there.',
      };
    case 429:
      return {
        title: 'Too many tries from here',
        happened: 'Addresses that lead nowhere were opened too often, so this door stays closed for a while.',
        next: 'Wait a quarter of an hour, then open your link again.',
      };
    case 503:
      if (isRouteErrorResponse(error) && typeof error.data === 'string') {
        return {
          title: 'Too much at once',
          happened: `${error.data} Everything that was saved is safe.`,
          next: 'Wait a few seconds, then try again. This page looks again by itself.',
        };
      }
      return {
        title: 'The database cannot be reached',
        happened: 'Everything that was saved is safe, and what you were marking is kept on this device.',
        next: 'This page looks again every few seconds and comes back by itself.',
      };
    default:
      return {
        title: 'Something went wrong on our side',
        happened: 'What was saved is safe. The fault has been written down.',
        next: 'Try again; if it stays, tell whoever looks after this installation.',
      };
  }
}

/** Loads the page again as soon as the server has its database back. */
function useReturn(isWaiting: boolean) {
  useEffect(() => {
    if (!isWaiting) return;
    const timer = setInterval(async () => {
      const answer = await fetch('/health').catch(() => null);
      if (answer?.ok) window.location.reload();
    }, 3000);
    return () => clearInterval(timer);
  }, [isWaiting]);
}

/** What a page says when it cannot be shown: what happened, what is safe, what to do next. */
export function FailurePage({ error }: { error: unknown }) {
  const { title, happened, next } = wordsFor(error);
  useReturn(isRouteErrorResponse(error) && error.status === 503);
  return (
    <main className="mx-auto max-w-xl px-6 py-20">
      <title>{`${title} · Gentle Margin`}</title>
      <div className="border-l-2 border-clay pl-6">
        <h1 className="text-2xl">{title}</h1>
        <p className="mt-4">{happened}</p>
        <p className="mt-2 text-ink-2">{next}</p>
        <p className="mt-6">
          <Link to="/students" className="btn">
            To the students
          </Link>
        </p>
      </div>
    </main>
  );
}
