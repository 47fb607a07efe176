import { type ReactNode, useState } from 'react';
import type { TypedOther } from '~/core/entries/incidents/incident-input';
import type { IncidentScreen } from '~/core/entries/waiting';
import { Labelled } from '../../platform/ui/labelled';
import { NamesInNote } from '../../students/names-in-note';
import { Chips } from './chips';
import { HowLong, Resolved } from './how-long';
import type { IncidentDraft } from './incident-draft';
import { useGroupKeys } from './use-group-keys';
import { When } from './when-fields';
import { incidentFieldsWords, incidentWords } from './words';

export interface IncidentFieldsProps {
  incidentScreen: IncidentScreen;
  draft: IncidentDraft;
  messages: Record<string, string>;
  onChange: (changes: Partial<IncidentDraft>) => void;
  /** Whether it can be said that somebody else watches too. */
  mayBeSecond?: boolean;
  /** Where photographs are taken; absent where none can be. */
  photographs?: ReactNode;
}

/** Beside each other where there is room: behaviors are few, so how strong it was stands below them. */
const columns = {
  antecedent: 'sm:col-start-1 sm:row-span-2 sm:row-start-1',
  behavior: 'sm:col-start-2 sm:row-start-1',
  consequence: 'sm:col-start-3 sm:row-span-2 sm:row-start-1',
};

const columnKinds = ['antecedent', 'behavior', 'consequence'] as const;

const lists = { antecedent: 'antecedents', behavior: 'behaviors', consequence: 'consequences' } as const;

/** Everything an ABC incident says, on one screen: what is tapped once is marked, tapped again it is not. */
export function IncidentFields({
  incidentScreen,
  draft,
  messages,
  onChange,
  mayBeSecond = false,
  photographs,
}: IncidentFieldsProps) {
  const { offered, leftOut, discreet } = incidentScreen;
  const words = incidentWords(discreet);
  const [showsMore, setShowsMore] = useState(false);
  const toggle = (list: 'antecedents' | 'behaviors' | 'consequences' | 'functions', id: string) =>
    onChange({ [list]: draft[list].includes(id) ? draft[list].filter((one) => one !== id) : [...draft[list], id] });
  const typed = { others: draft.others, onType: (others: TypedOther[]) => onChange({ others }) };
  const uses = (field: (typeof leftOut)[number]) => !leftOut.includes(field);
  const behaviors = offered.behavior.filter(({ abc, id }) => abc || draft.behaviors.includes(id));
  const chooseIntensity = (id: string) => onChange({ intensityId: draft.intensityId === id ? null : id });
  const groupProps = useGroupKeys([
    ...columnKinds.map((kind) => ({
      kind,
      choices: kind === 'behavior' ? behaviors : offered[kind],
      onToggle: (id: string) => toggle(lists[kind], id),
    })),
    ...(uses('intensity')
      ? [{ kind: 'intensity' as const, choices: offered.intensity, onToggle: chooseIntensity }]
      : []),
    ...(uses('function')
      ? [{ kind: 'function' as const, choices: offered.function, onToggle: (id: string) => toggle('functions', id) }]
      : []),
  ]);
  return (
    <div className="grid gap-3.5">
      <When
        incidentScreen={incidentScreen}
        draft={draft}
        messages={messages}
        onChange={onChange}
        mayBeSecond={mayBeSecond}
      />
      <div className="grid gap-x-6 gap-y-2.5 sm:grid-cols-3 sm:grid-rows-[auto_1fr]">
        {columnKinds.map((kind) => (
          <Chips
            key={kind}
            kind={kind}
            legend={words.asks[kind]}
            hint={words.hints[kind]}
            {...groupProps(kind)}
            chosen={draft[lists[kind]]}
            message={messages[lists[kind]]}
            typed={typed}
            isColumn
            className={columns[kind]}
          />
        ))}
        {uses('intensity') && offered.intensity.length > 0 && (
          <Chips
            kind="intensity"
            legend={words.asks.intensity}
            hint={words.hints.intensity}
            {...groupProps('intensity')}
            chosen={draft.intensityId ? [draft.intensityId] : []}
            message={messages.intensityId}
            className="sm:col-start-2 sm:row-start-2"
          />
        )}
      </div>
      <button
        type="button"
        aria-expanded={showsMore}
        onClick={() => setShowsMore(!showsMore)}
        className="min-h-11 justify-self-start text-small link sm:hidden"
      >
        {showsMore ? incidentFieldsWords.less : words.more}
      </button>
      <div className={`grid gap-3.5 ${showsMore ? '' : 'max-sm:hidden'}`}>
        <div className="flex flex-wrap gap-x-8 gap-y-3">
          {uses('duration') && <HowLong draft={draft} onChange={onChange} words={words} message={messages.seconds} />}
          {uses('resolved') && (
            <Resolved draft={draft} onChange={onChange} words={words} message={messages.resolvedAfter} />
          )}
        </div>
        <div className="flex flex-wrap items-start gap-x-8 gap-y-3">
          {uses('function') && offered.function.length > 0 && (
            <Chips
              kind="function"
              legend={words.asks.function}
              hint={words.hints.function}
              {...groupProps('function')}
              chosen={draft.functions}
              message={messages.functions}
              typed={typed}
            />
          )}
          <div className="min-w-64 grow">
            <Labelled label={words.words} message={messages.note}>
              <textarea
                rows={1}
                value={draft.note}
                onChange={(event) => onChange({ note: event.target.value })}
                className="textarea min-h-11 w-full"
              />
            </Labelled>
            {!discreet && <NamesInNote studentId={incidentScreen.student.id} text={draft.note} />}
            {photographs && <div className="mt-2">{photographs}</div>}
          </div>
        </div>
      </div>
    </div>
  );
}
