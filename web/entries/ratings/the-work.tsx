import { theWorkWords } from './words';

interface TheWorkProps {
  text: string | null;
  file: { type: string; href: string } | null;
  /** What stands on its paper. */
  number: number;
}

/** The work itself, in view: its photograph, its PDF, its text. */
export function TheWork({ text, file, number }: TheWorkProps) {
  return (
    <div className="mt-4 grid gap-4">
      {file?.type === 'image/jpeg' && (
        <a href={file.href}>
          <img src={file.href} alt={theWorkWords.photograph} className="w-full rounded-box border border-rule" />
        </a>
      )}
      {file?.type === 'application/pdf' && (
        <a href={file.href} className="btn justify-self-start">
          {theWorkWords.openPdf}
        </a>
      )}
      {text && <p className="rounded-box border border-rule bg-sheet p-4 whitespace-pre-line">{text}</p>}
      {!text && !file && <p className="text-ink-2">{theWorkWords.none(number)}</p>}
    </div>
  );
}
