import { LabelledInput, LabelledSelect } from '../../platform/ui/labelled';
import { whenInputsWords } from './words';

interface NoteWhen {
  on: string;
  time: string;
  observerId: string;
}

interface WhenInputsProps {
  when: NoteWhen;
  people: readonly { id: string; name: string }[];
  /** The latest day that may be chosen. */
  latest: string;
  messages: Record<string, string>;
  onChange: (changes: Partial<NoteWhen>) => void;
}

/** When a note was seen, and by whom. */
export function WhenInputs({ when, people, latest, messages, onChange }: WhenInputsProps) {
  return (
    <>
      <LabelledInput
        label={whenInputsWords.date}
        type="date"
        max={latest}
        value={when.on}
        message={messages.on}
        onChange={(on) => onChange({ on })}
      />
      <LabelledInput
        label={whenInputsWords.time}
        type="time"
        value={when.time}
        message={messages.time}
        onChange={(time) => onChange({ time })}
      />
      <LabelledSelect
        label={whenInputsWords.observer}
        value={when.observerId}
        options={people}
        message={messages.observerId}
        onChange={(observerId) => onChange({ observerId: observerId ?? '' })}
      />
    </>
  );
}
