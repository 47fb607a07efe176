import { useCallback, useEffect, useRef, useState } from 'react';
import { useBlocker } from 'react-router';
import type { DraftWords } from '~/core/progress-report/input';
import type { RichText } from '~/core/words/rich-text';
import { useRetry, useSaving } from '../platform/ui/use-saving';
import type { DraftAnswer } from './draft';
import { useKeptWordsWords } from './words';

/** After so long without a key the words are kept. */
const PAUSE = 1500;

interface Draft {
  period: string;
  words: DraftWords;
  version: number;
}

/**
 * The words of a draft, kept on the server by themselves as they are written. What somebody else wrote in the meantime is never
 * overwritten without being asked.
 *
 * @param path  where they are sent
 * @param draft  as it was when the page was opened
 */
export function useKeptWords(path: string, draft: Draft) {
  const { period } = draft;
  const { answer, isBusy, isUnreachable, save } = useSaving<DraftAnswer>(path);
  const [words, setWords] = useState(draft.words);
  const [version, setVersion] = useState(draft.version);
  const [isDirty, setDirty] = useState(false);
  const [isIssued, setIssued] = useState(false);
  // What is typed while something is being kept is kept next.
  const sent = useRef(words);
  const latest = useRef(words);
  latest.current = words;
  const theirs = answer && 'theirs' in answer && version !== answer.theirs.version ? answer.theirs : null;

  const keep = useCallback(() => {
    sent.current = words;
    save({ intent: 'save', period, version, words });
  }, [save, period, version, words]);
  useEffect(() => {
    // Issued, the page gives way to the report without an answer.
    if (answer) setIssued(false);
    if (!answer || !('version' in answer)) return;
    setVersion(answer.version);
    setDirty(sent.current !== latest.current);
  }, [answer]);
  useEffect(() => {
    if (!isDirty || isBusy || theirs || isUnreachable) return;
    const timer = setTimeout(keep, PAUSE);
    return () => clearTimeout(timer);
  }, [isDirty, isBusy, theirs, isUnreachable, keep]);
  useRetry({ isUnreachable, isBusy }, keep);
  useBlocker(
    ({ currentLocation, nextLocation }) =>
      isDirty &&
      !isIssued &&
      currentLocation.pathname !== nextLocation.pathname &&
      !window.confirm(useKeptWordsWords.whatYouTypedLastHas),
  );

  return {
    ...{ words, version, isDirty, isBusy, isUnreachable, answer, theirs },
    /** @param place  the goal that the words are about; null for the whole */
    change: (place: string | null, to: RichText) => {
      setDirty(true);
      setWords((before) =>
        place === null ? { ...before, whole: to } : { ...before, goals: { ...before.goals, [place]: to } },
      );
    },
    keepMine: () => {
      if (theirs) setVersion(theirs.version);
      setDirty(true);
    },
    issue: (how: { id: string; readers: string[]; replaces: string | null }) => {
      sent.current = words;
      setIssued(true);
      save({ intent: 'issue', period, version, words, ...how });
    },
  };
}
