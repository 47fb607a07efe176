import { type ReactNode, useId, useState } from 'react';
import { FieldMessage } from '../../platform/ui/fields';
import { CameraButton } from '../evidence/camera-button';
import { madeSmaller } from '../evidence/made-smaller';
import { photographFieldWords } from './words';

interface PhotographFieldProps {
  name: string;
  photograph: string | null;
  isLarge: boolean;
  onChange: (photograph: string | null) => void;
  /** Its hint and its message. */
  children: ReactNode;
}

/** A photograph that comes along with the answers: taken now, or chosen. */
export function PhotographField({ name, photograph, isLarge, onChange, children }: PhotographFieldProps) {
  const id = useId();
  const [problem, setProblem] = useState<string | null>(null);
  const take = async (file: File) => {
    try {
      onChange(await madeSmaller(file));
      setProblem(null);
    } catch {
      setProblem(photographFieldWords.cannotBeRead);
    }
  };
  const size = isLarge ? 'h-16 text-lg' : '';
  return (
    <div className="grid justify-items-start gap-1.5">
      <label htmlFor={id} className={isLarge ? 'text-xl font-semibold' : 'font-semibold'}>
        {name}
      </label>
      {photograph !== null && (
        <img
          src={`data:image/jpeg;base64,${photograph}`}
          alt={photographFieldWords.taken}
          className="max-h-48 rounded-box border border-rule"
        />
      )}
      <span className="flex flex-wrap gap-2">
        <CameraButton id={id} onTake={take} className={size}>
          {photograph === null ? photographFieldWords.take : photographFieldWords.another}
        </CameraButton>
        {photograph !== null && (
          <button type="button" className={`btn ${size}`} onClick={() => onChange(null)}>
            {photographFieldWords.without}
          </button>
        )}
      </span>
      {children}
      <FieldMessage messages={problem ? [problem] : undefined} />
    </div>
  );
}
