import { useRef } from 'react';

interface CellBoxProps {
  name: string;
  isWide: boolean;
  text: string;
  placeholder: string;
  message: string | undefined;
  onChange: (text: string) => void;
  onPaste: React.ClipboardEventHandler;
}

/** One cell. Enter and the arrows up and down go to the row before or after. */
export function CellBox({ name, isWide, text, placeholder, message, onChange, onPaste }: CellBoxProps) {
  const box = useRef<HTMLInputElement>(null);
  const go = (event: React.KeyboardEvent) => {
    const by = { Enter: 1, ArrowDown: 1, ArrowUp: -1 }[event.key];
    const cell = box.current?.closest('td');
    if (by === undefined || !cell) return;
    event.preventDefault();
    const rows = cell.closest('tbody')?.rows;
    // A cell’s parent is its row.
    const row = rows?.[(cell.parentElement as HTMLTableRowElement).sectionRowIndex + by];
    row?.cells[cell.cellIndex]?.querySelector('input')?.focus();
  };
  return (
    <>
      <input
        ref={box}
        aria-label={name}
        aria-invalid={message ? true : undefined}
        value={text}
        placeholder={placeholder}
        autoComplete="off"
        onChange={(event) => onChange(event.target.value)}
        onPaste={onPaste}
        onKeyDown={go}
        className={`h-10 rounded-field border bg-sheet px-2 placeholder:text-ink-3/60 ${isWide ? 'w-56' : 'w-24'} ${message ? 'border-clay' : 'border-rule'}`}
      />
      {message && (
        <span role="alert" className={`block text-xs font-semibold text-clay-deep ${isWide ? 'w-56' : 'w-24'}`}>
          {message}
        </span>
      )}
    </>
  );
}
