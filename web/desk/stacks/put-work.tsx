import { Form, Link, useNavigation } from 'react-router';
import { FieldMessage } from '../../platform/ui/fields';
import { putWorkWords, stacksWords } from './words';

interface PutWorkProps {
  sample: {
    id: string;
    number: number;
    studentId: string;
    goalId: string;
    name: string;
    text: string | null;
    fileType: string | null;
    entryId: string | null;
    turns: number;
    rated: number;
  };
  isClosed: boolean;
  message: string | undefined;
}

/** One student's work sample: whether the work itself is in it, how far it is rated, and what puts the work in. */
export function PutWork({ sample, isClosed, message }: PutWorkProps) {
  const { id, number, studentId, goalId, name, text, fileType, entryId, turns, rated } = sample;
  const isBusy = useNavigation().state !== 'idle';
  const has = [text && putWorkWords.aText, fileType && putWorkWords.files[fileType]].filter(Boolean);
  const state = entryId ? putWorkWords.isEntry : stacksWords.rated(rated, turns);
  return (
    <li className="border-b border-dotted border-ink-3/50 py-2.5">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <Link
          to={entryId ? `/students/${studentId}/entries/${entryId}` : `/students/${studentId}/goals/${goalId}/ratings`}
          className="tap min-w-40 grow font-semibold hover:underline"
        >
          <span className="mr-3 display text-lg">{putWorkWords.number(number)}</span>
          {name}
        </Link>
        <span className="text-small text-ink-2">{has.length > 0 ? has.join(', ') : putWorkWords.nothing}</span>
        <span className="text-small text-ink-2">{state}</span>
      </div>
      {!isClosed && rated === 0 && (
        <details className="no-print" open={message !== undefined || undefined}>
          <summary className="tap cursor-pointer text-small text-ink-2">{putWorkWords.put(name)}</summary>
          <Form method="post" encType="multipart/form-data" className="mt-1 grid max-w-xl gap-3 pb-2">
            <input type="hidden" name="intent" value="work" />
            <input type="hidden" name="sampleId" value={id} />
            <label className="grid gap-1 text-small">
              <span className="font-semibold">{putWorkWords.file}</span>
              <input
                type="file"
                name="file"
                accept="image/jpeg,image/png,image/webp,application/pdf"
                className="file-input"
              />
            </label>
            <label className="grid gap-1 text-small">
              <span className="font-semibold">{putWorkWords.text}</span>
              <textarea
                name="text"
                rows={2}
                defaultValue={text ?? ''}
                className="textarea w-full field-sizing-content"
              />
            </label>
            <FieldMessage messages={message ? [message] : undefined} />
            <button type="submit" className="btn justify-self-start" disabled={isBusy}>
              {putWorkWords.save}
            </button>
          </Form>
        </details>
      )}
    </li>
  );
}
