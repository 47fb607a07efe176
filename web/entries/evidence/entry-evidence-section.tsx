import { useEffect, useRef, useState } from 'react';
import { useFetcher } from 'react-router';
import { v4 as newId } from 'uuid';
import { type Evidence, LARGEST_FILE, tooLargeWords } from '~/core/entries/evidence';
import { EvidenceList } from './evidence-list';
import { entryEvidenceSectionWords } from './words';

interface EntryEvidenceProps {
  studentId: string;
  entryId: string;
  mayAdd: boolean;
}

/** The photographs and files beside an entry, on its own page. */
export function EntryEvidence({ studentId, entryId, mayAdd }: EntryEvidenceProps) {
  const { load, data } = useFetcher<{ evidence: Evidence[] }>();
  const sending = useFetcher<{ problem: string | null }>();
  const [tooLarge, setTooLarge] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const path = `/students/${studentId}/evidence/of/${entryId}`;
  useEffect(() => {
    void load(path);
  }, [load, path]);
  const evidence = data?.evidence ?? [];
  const problem = tooLarge ? tooLargeWords : sending.data?.problem;
  if (!mayAdd && evidence.length === 0) return null;
  const send = (file: File | undefined) => {
    if (!file) return;
    setTooLarge(file.size > LARGEST_FILE);
    if (file.size > LARGEST_FILE) return;
    const form = new FormData();
    form.set('intent', 'add');
    form.set('id', newId());
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
