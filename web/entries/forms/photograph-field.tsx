import { Camera } from 'lucide-react';
import { type ReactNode, useId, useState } from 'react';
import { FieldMessage } from '../../platform/ui/fields';
import { photographFieldWords } from './words';

/** A photograph's longer side is made no longer than this, in dots: it is readable, and small enough to wait on the device. */
const LONGEST_SIDE = 1600;
const QUALITY = 0.82;

/** A picture made smaller on the device, as base64. */
async function smaller(file: File): Promise<string> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return canvas.toDataURL('image/jpeg', QUALITY).replace(/^data:[^,]*,/, '');
}

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
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      onChange(await smaller(file));
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
        <span className={`btn relative ${size}`}>
          <Camera size={18} aria-hidden />
          {photograph === null ? photographFieldWords.take : photographFieldWords.another}
          <input
            id={id}
            type="file"
            accept="image/jpeg,image/png,image/webp"
            capture="environment"
            onChange={(event) => {
              void take(event.target.files?.[0]);
              event.target.value = '';
            }}
            className="absolute inset-0 cursor-pointer opacity-0"
          />
        </span>
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
