import { Command } from 'cmdk';
import { useEffect, useState } from 'react';
import { useFetcher, useNavigate } from 'react-router';
import { Dialog } from '../platform/ui/dialog';
import type { loader } from './finder-entries';
import { finderWords } from './words';

/** Finds a student or a goal by a few letters. Loaded when it is first opened. */
export default function Finder({ onClose }: { onClose: () => void }) {
  const { data, load } = useFetcher<typeof loader>();
  const navigate = useNavigate();
  const [typed, setTyped] = useState('');
  // What is typed is asked for a moment later; the first look is at what there is.
  useEffect(() => {
    const soon = setTimeout(() => load(`/finder?${new URLSearchParams({ find: typed })}`), typed === '' ? 0 : 120);
    return () => clearTimeout(soon);
  }, [typed, load]);
  const go = (to: string) => {
    onClose();
    void navigate(to);
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
    <Dialog title={finderWords.findAStudentOrGoal} onClose={onClose}>
      <Command label={finderWords.findAStudentOrGoal} loop shouldFilter={false}>
        <Command.Input
          autoFocus
          value={typed}
          onValueChange={setTyped}
          placeholder={finderWords.aNameANumberOr}
          className="h-14 w-full border-b border-rule bg-transparent px-5 text-lg outline-none placeholder:text-ink-3"
        />
        <Command.List className="max-h-[55vh] overflow-y-auto pt-2">
          {data?.typed === typed ? (
            <Command.Empty className="px-5 py-4 text-ink-2">{finderWords.nothingFoundTryFewerLetters}</Command.Empty>
          ) : null}
          {!data && <p className="px-5 py-4 text-ink-2">{finderWords.looking}</p>}
          {data && group(finderWords.students, data.students)}
          {data && group(finderWords.goals, data.goals)}
        </Command.List>
      </Command>
    </Dialog>
  );
}
