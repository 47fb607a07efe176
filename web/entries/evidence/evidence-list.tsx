import { FileText } from 'lucide-react';
import { type Evidence, fileSize } from '~/core/entries/evidence';

/** Photographs small, files by their name; each leads to itself in full. */
export function EvidenceList({ evidence, base }: { evidence: readonly Evidence[]; base: string }) {
  if (evidence.length === 0) return null;
  return (
    <ul className="mt-2 flex flex-wrap gap-2">
      {evidence.map(({ id, name, isPicture, bytes }) => (
        <li key={id}>
          {isPicture ? (
            <a href={`${base}/${id}`} target="_blank" rel="noreferrer" className="block">
              <img
                src={`${base}/${id}?small`}
                alt={name}
                loading="lazy"
                width={96}
                height={96}
                className="size-24 rounded-field border border-rule object-cover"
              />
            </a>
          ) : (
            <a
              href={`${base}/${id}`}
              className="flex h-24 w-40 flex-col justify-center gap-1 rounded-field border border-rule bg-sheet px-3 text-small"
            >
              <FileText size={18} aria-hidden />
              <span className="truncate link">{name}</span>
              <span className="text-ink-2">{fileSize(bytes)}</span>
            </a>
          )}
        </li>
      ))}
    </ul>
  );
}
