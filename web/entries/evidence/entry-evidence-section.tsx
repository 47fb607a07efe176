import { useEffect, useRef, useState } from 'react';
import { useFetcher } from 'react-router';
import { v4 as newId } from 'uuid';
import { type Evidence, LARGEST_FILE, tooLargeWords } from '~/core/entries/evidence';
import { useWaiting } from '../../platform/offline/waiting';
import { EvidenceList } from './evidence-list';
import { madeSmaller } from './made-smaller';
import { entryEvidenceSectionWords } from './words';

interface EntryEvidenceProps {
  studentId: string;
  entryId: string;
  mayAdd: boolean;
}

/** The photographs and files beside an entry, on its own page. */
export function EntryEvidence({ studentId, entryId, mayAdd }: EntryEvidenceProps) {
  const { load, data } = useFetcher<{ evidence: Evidence[] }>();
  const sending = useFetcher<{ problem: string | null; isUnreachable?: boolean }>();
  const { saveChange } = useWaiting();
  const [tooLarge, setTooLarge] = useState(false);
  const [waits, setWaits] = useState<string | null>(null);
  const last = useRef<{ id: string; file: File }>(undefined);
  const input = useRef<HTMLInputElement>(null);
  const path = `/students/${studentId}/evidence/of/${entryId}`;
  useEffect(() => {
    void load(path);
  }, [load, path]);
  const isUnreachable = sending.state === 'idle' && sending.data?.isUnreachable === true;
  useEffect(() => {
    if (!isUnreachable || !last.current) return;
    const { id, file } = last.current;
    last.current = undefined;
    // A photograph waits on this device, made smaller; a file is too large for that.
    madeSmaller(file)
      .then((content) => saveChange({ to: path, change: { intent: 'photograph', id, name: file.name, content } }))
      .then(
        () => setWaits(entryEvidenceSectionWords.itWaits),
        () => setWaits(entryEvidenceSectionWords.aFileCannotWait),
      );
  }, [isUnreachable, path, saveChange]);
  const evidence = data?.evidence ?? [];
  const problem = tooLarge ? tooLargeWords : (waits ?? sending.data?.problem);
  if (!mayAdd && evidence.length === 0) return null;
  const send = (file: File | undefined) => {
    if (!file) return;
    setTooLarge(file.size > LARGEST_FILE);
    if (file.size > LARGEST_FILE) return;
    const id = newId();
    last.current = { id, file };
    setWaits(null);
    const form = new FormData();
    form.set('intent', 'add');
    form.set('id', id);
    form.set('file', file);
    void sending.submit(form, { method: 'post', action: path, encType: 'multipart/form-data' });
    if (input.current) input.current.value = '';
  };
  return (
    <section aria-label={entryEvidenceSectionWords.picturesAndFiles} className="no-print mt-6">
      <h2 className="text-lg">{entryEvidenceSectionWords.picturesAndFiles}</h2>
      <EvidenceList evidence={evidence} base={`/students/${studentId}/evidence`} />
      {mayAdd && evidence.length > 0 && (
        <ul className="mt-2 flex flex-wrap gap-x-4 text-small">
          {evidence.map(({ id, name }) => (
            <li key={id}>
              <sending.Form method="post" action={path}>
                <input type="hidden" name="id" value={id} />
                <button type="submit" name="intent" value="withdraw" className="tap text-ink-2 link">
                  {entryEvidenceSectionWords.takeOut(name)}
                </button>
              </sending.Form>
            </li>
          ))}
        </ul>
      )}
      {mayAdd && (
        <label className="mt-3 grid w-fit gap-1 text-small">
          <span className="font-semibold">{entryEvidenceSectionWords.addAPhotographOrA}</span>
          <input
            ref={input}
            type="file"
            accept="image/jpeg,image/png,image/webp,application/pdf"
            className="file-input"
            disabled={sending.state !== 'idle'}
            aria-describedby="evidence-message"
            onChange={(event) => send(event.target.files?.[0])}
          />
        </label>
      )}
      <p
        id="evidence-message"
        role="status"
        className={`mt-1 text-small ${problem ? 'font-semibold text-clay-deep' : 'text-ink-2'}`}
      >
        {sending.state !== 'idle'
          ? entryEvidenceSectionWords.beingAdded
          : (problem ?? (mayAdd ? entryEvidenceSectionWords.whereAPictureWasTaken : ''))}
      </p>
    </section>
  );
}
