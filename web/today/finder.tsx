import { Command } from 'cmdk';
import { type KeyboardEvent, useCallback, useEffect, useState } from 'react';
import { useFetcher, useNavigate } from 'react-router';
import type { loader } from './finder-entries';
import { finderWords } from './words';

interface FinderProps {
  /** What is typed; letters come in while this is still being fetched. */
  typed: string;
  /** Whether Enter was pressed before this was there. */
  isEntered: boolean;
  onType: (typed: string) => void;
  onClose: () => void;
}

/** Finds a student or a goal by a few letters. Fetched when it is first opened. */
export default function Finder({ typed, isEntered, onType, onClose }: FinderProps) {
  const { data, load } = useFetcher<typeof loader>();
  const navigate = useNavigate();
  const [hasMoved, setMoved] = useState(false);
  const [isWanted, setWanted] = useState(isEntered);
  // What is typed is asked for a moment later; the first look is at what there is.
  useEffect(() => {
    const soon = setTimeout(() => load(`/finder?${new URLSearchParams({ find: typed })}`), typed === '' ? 0 : 120);
    return () => clearTimeout(soon);
  }, [typed, load]);
  const go = useCallback(
    (to: string) => {
      onClose();
      void navigate(to);
    },
    [onClose, navigate],
  );
  const isFresh = data?.typed === typed;
  // Enter means what was typed: where that is still looked for, it is waited for.
  useEffect(() => {
    if (!isWanted || !isFresh) return;
    setWanted(false);
    const first = [...data.students, ...data.goals][0];
    if (first) go(first.to);
  }, [isWanted, isFresh, data, go]);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key.startsWith('Arrow')) setMoved(true);
    if (event.key !== 'Enter') return;
    const isNothing = typed.trim() === '' && !hasMoved;
    if (!isNothing && isFresh) return;
    event.preventDefault();
    setWanted(!isNothing);
  };
  const group = (heading: string, entries: NonNullable<typeof data>['goals']) => (
    <Command.Group
      heading={heading}
      className="px-2 pb-2 text-small text-ink-2 **:[[cmdk-group-heading]]:px-3 **:[[cmdk-group-heading]]:py-1"
    >
      {entries.map(({ to, label, about }) => (
        <Command.Item
          key={to}
          value={to}
          onSelect={() => go(to)}
          className="flex min-h-11 cursor-pointer items-center justify-between gap-4 rounded-field px-3 text-base text-ink data-[selected=true]:bg-fern-wash"
        >
          {label}
          <span className="text-small text-ink-2">{about}</span>
        </Command.Item>
      ))}
    </Command.Group>
  );
  return (
    <Command label={finderWords.findAStudentOrGoal} loop shouldFilter={false} onKeyDown={onKeyDown}>
      <Command.Input
        autoFocus
        value={typed}
        onValueChange={(next) => {
          setMoved(false);
          onType(next);
        }}
        onFocus={({ currentTarget: { value }, currentTarget }) =>
          currentTarget.setSelectionRange(value.length, value.length)
        }
        placeholder={finderWords.aNameANumberOr}
        className="h-14 w-full border-b border-rule bg-transparent px-5 text-lg outline-none placeholder:text-ink-3"
      />
      <Command.List className="max-h-[55vh] overflow-y-auto pt-2">
        {isFresh ? (
          <Command.Empty className="px-5 py-4 text-ink-2">{finderWords.nothingFoundTryFewerLetters}</Command.Empty>
        ) : null}
        {!data && <p className="px-5 py-4 text-ink-2">{finderWords.looking}</p>}
        {data && group(finderWords.students, data.students)}
        {data && group(finderWords.goals, data.goals)}
      </Command.List>
    </Command>
  );
}
