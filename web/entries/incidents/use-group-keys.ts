import { useState } from 'react';
import type { ChoiceKind } from '~/core/entries/incidents/choice';
import type { OfferedChoice } from '~/core/entries/waiting';
import { padKeys } from '../../measures/sheet';
import { useKey } from '../../platform/ui/use-key';

/** Choices of one kind, as the keys reach them. */
interface Group {
  kind: ChoiceKind;
  choices: readonly OfferedChoice[];
  onToggle: (id: string) => void;
}

/**
 * One group at a time takes the digit keys: the first to begin with, then that which has the focus. N goes to the next, as it does while
 * observing.
 *
 * @returns what a group is given, by its kind
 */
export function useGroupKeys(groups: readonly Group[]) {
  const [active, setActive] = useState<ChoiceKind>(groups[0]?.kind ?? 'behavior');
  const at = groups.findIndex(({ kind }) => kind === active);
  const group = groups[at] ?? groups[0];
  useKey(padKeys, (event) => {
    const choice = group?.choices[padKeys.indexOf(event.key)];
    if (choice) group?.onToggle(choice.id);
  });
  useKey('n', () => {
    const next = groups[(at + 1) % groups.length];
    if (next) setActive(next.kind);
  });
  return (kind: ChoiceKind) => {
    const { choices = [], onToggle = () => {} } = groups.find((one) => one.kind === kind) ?? {};
    return { choices, onToggle, isActive: kind === group?.kind, onActivate: () => setActive(kind) };
  };
}
