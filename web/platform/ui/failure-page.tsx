import { useEffect } from 'react';
import { isRouteErrorResponse, Link, useRevalidator } from 'react-router';
import { isUnreachable } from '../offline/unreachable';
import { failurePageWords } from './words';

interface Words {
  title: string;
  happened: string;
  next: string;
}

function wordsFor(error: unknown): Words {
  if (isUnreachable(error)) {
    return {
      title: failurePageWords.noConnection,
      happened: failurePageWords.thisPageIsNotKept,
      next: failurePageWords.whatYouRecordedIsSafe,
    };
  }
  const status = isRouteErrorResponse(error) ? error.status : 500;
  switch (status) {
    case 404:
      return {
        title: failurePageWords.thereIsNothingAtThis,
        happened: failurePageWords.itMayHaveBeenMoved,
        next: failurePageWords.goBackToYourStudents,
      };
    case 403:
      return {
        title: failurePageWords.thisIsNotYoursTo,
        happened:
          isRouteErrorResponse(error) && typeof error.data === 'string'
            ? error.data
            : failurePageWords.yourRoleDoesNotAllow,
        next: failurePageWords.nothingWasChangedTheCase,
      };
    case 422:
      return {
        title: failurePageWords.thisCannotBeKept,
        happened:
          isRouteErrorResponse(error) && typeof error.data === 'string'
            ? error.data
            : failurePageWords.somethingWasNotReadable,
        next: failurePageWords.nothingWasChangedGoBack,
      };
    case 429:
      return {
        title: failurePageWords.tooManyTriesFromHere,
        happened: failurePageWords.addressesThatLeadNowhereWere,
        next: failurePageWords.waitAQuarterOfAn,
      };
    case 503:
      if (isRouteErrorResponse(error) && typeof error.data === 'string') {
        return {
          title: failurePageWords.tooMuchAtOnce,
          happened: failurePageWords.everythingThatWasSavedIs(error.data),
          next: failurePageWords.waitAFewSecondsThen,
        };
      }
      return {
        title: failurePageWords.theDatabaseCannotBeReached,
        happened: failurePageWords.everythingThatWasSavedIsSafe,
        next: failurePageWords.thisPageLooksAgainEvery,
      };
    default:
      return {
        title: failurePageWords.somethingWentWrongOnOur,
        happened: failurePageWords.whatWasSavedIsSafe,
        next: failurePageWords.tryAgainIfItStays,
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
  const isOut = isUnreachable(error);
  const { revalidate, state } = useRevalidator();
  useReturn(isOut || (isRouteErrorResponse(error) && error.status === 503));
  return (
    <main className="mx-auto max-w-xl px-6 py-20">
      <title>{failurePageWords.gentleMargin(title)}</title>
      <div className="border-l-2 border-clay pl-6">
        <h1 className="text-2xl">{title}</h1>
        <p className="mt-4">{happened}</p>
        <p className="mt-2 text-ink-2">{next}</p>
        <p className="mt-6 flex flex-wrap gap-2">
          {isOut && (
            <button
              type="button"
              className="btn btn-primary"
              disabled={state !== 'idle'}
              onClick={() => void revalidate()}
            >
              {failurePageWords.tryAgain}
            </button>
          )}
          <Link to={isOut ? '/' : '/students'} className="btn">
            {isOut ? failurePageWords.toToday : failurePageWords.toTheStudents}
          </Link>
        </p>
      </div>
    </main>
  );
}
