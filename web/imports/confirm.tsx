import { Form, useNavigation } from 'react-router';
import type { ImportKindName } from '~/core/imports/kinds';
import type { Fate } from '~/core/imports/preview';
import { counted } from '~/core/words/counting';
import { importWords } from './words';

interface ConfirmProps {
  kind: ImportKindName;
  counts: Record<Fate, number>;
  commands: number;
  /** Why the last try did not come in. */
  refused: string | null;
}

const rows = (n: number) => counted(n, 'row', 'rows');

/** What a file comes to as a whole, and the tap that writes it. */
export function Confirm({ kind, counts, commands, refused }: ConfirmProps) {
  const { state, formData } = useNavigation();
  const isWriting = state !== 'idle' && formData?.get('intent') === 'takeOver';
  return (
    <div className="grid gap-3">
      {refused && (
        <p role="alert" className="alert alert-error alert-soft block font-semibold">
          {refused}
        </p>
      )}
      {commands > 0 ? (
        <Form method="post">
          <button
            type="submit"
            name="intent"
            value="takeOver"
            disabled={state !== 'idle'}
            className="btn btn-primary h-auto min-h-11 w-full py-2"
          >
            {isWriting
              ? importWords.importing
              : `${importWords.takeOver(rows(commands - counts.gone))}${counts.gone > 0 ? importWords.andArchive(counts.gone) : ''}`}
          </button>
        </Form>
      ) : (
        <p className="font-semibold">{importWords.nothingNew}</p>
      )}
      <div className="grid gap-2 text-small text-ink-2">
        {commands > 0 && <p>{importWords.told[kind]}</p>}
        {counts.wrong > 0 && <p className="font-semibold text-clay-deep">{importWords.leftOut(counts.wrong)}</p>}
        {counts.there > 0 && <p>{importWords.thereAlready(counts.there)}</p>}
      </div>
      <Form method="post" className="mt-4">
        <button type="submit" name="intent" value="forget" className="btn btn-sm" disabled={state !== 'idle'}>
          {importWords.forget}
        </button>
      </Form>
    </div>
  );
}
