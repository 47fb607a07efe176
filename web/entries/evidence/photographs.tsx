import { X } from 'lucide-react';
import { useState } from 'react';
import { v4 as newId } from 'uuid';
import { MOST_WHILE_RECORDING, type PhotographInput } from '~/core/entries/photograph';
import { FieldMessage } from '../../platform/ui/fields';
import { CameraButton } from './camera-button';
import { madeSmaller } from './made-smaller';
import { photographsWords } from './words';

interface PhotographsProps {
  /** What they are of: the goal, or the incident. */
  of: string;
  photographs: readonly PhotographInput[];
  onChange: (photographs: readonly PhotographInput[]) => void;
  hasRoomFor: (content: string) => boolean;
  /** In the discreet view a picture is not shown: it has faces. */
  discreet: boolean;
}

/** Photographs beside an entry that is being recorded: taken with the device’s camera, and kept there with it. */
export function Photographs({ of, photographs, onChange, hasRoomFor, discreet }: PhotographsProps) {
  const [problem, setProblem] = useState<string | null>(null);
  const take = async (file: File) => {
    try {
      const content = await madeSmaller(file);
      if (!hasRoomFor(content)) return setProblem(photographsWords.thatIsAll);
      onChange([...photographs, { id: newId(), content }]);
      setProblem(null);
    } catch {
      setProblem(photographsWords.cannotBeRead);
    }
  };
  return (
    <div className="flex flex-wrap items-center gap-2">
      {photographs.map(({ id, content }, at) => (
        <span key={id} className="relative">
          {discreet ? (
            <span className="grid size-16 place-items-center rounded-field border border-rule text-small text-ink-2">
              {photographsWords.number(at + 1)}
            </span>
          ) : (
            <img
              src={`data:image/jpeg;base64,${content}`}
              alt={photographsWords.number(at + 1)}
              className="size-16 rounded-field border border-rule object-cover"
            />
          )}
          <button
            type="button"
            aria-label={photographsWords.remove(at + 1, of)}
            onClick={() => onChange(photographs.filter((one) => one.id !== id))}
            className="absolute -top-2 -right-2 grid size-7 place-items-center rounded-full border border-ink-3 bg-sheet pointer-coarse:size-11"
          >
            <X size={14} aria-hidden />
          </button>
        </span>
      ))}
      {photographs.length < MOST_WHILE_RECORDING && (
        <CameraButton onTake={take} className="btn-sm font-normal pointer-coarse:min-h-11">
          {photographsWords.take} <span className="sr-only">{photographsWords.of(of)}</span>
        </CameraButton>
      )}
      <FieldMessage messages={problem ? [problem] : undefined} />
    </div>
  );
}
