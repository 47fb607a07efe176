import type { FieldMetadata, FormMetadata } from '@conform-to/react';
import { ArrowDown, ArrowUp, Plus, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { withArticle } from '~/core/words/counting';
import { FieldMessage } from './fields';
import { IconButton } from './icon-button';
import { rowsWords } from './words';

interface RowsProps<Row> {
  // biome-ignore lint/suspicious/noExplicitAny: rows stand in forms of every shape
  form: FormMetadata<any>;
  list: FieldMetadata<Row[]>;
  /** What one row is: “closure”. */
  what: string;
  /** What a new row begins with. */
  blank: () => unknown;
  canReorder?: boolean;
  /** Rows that are forms of their own have their buttons below. */
  isTall?: boolean;
  /** Rows that something else depends on stay. */
  mayRemove?: (row: FieldMetadata<Row>) => boolean;
  children: (row: FieldMetadata<Row>, at: number) => ReactNode;
}

/** Several of the same in a form: added, taken away, and moved with the keyboard as with the mouse. */
export function Rows<Row>({
  form,
  list,
  what,
  blank,
  canReorder = false,
  isTall = false,
  mayRemove,
  children,
}: RowsProps<Row>) {
  // Conform types a list of a generic row only where the row is known.
  const rows = list.getFieldList() as FieldMetadata<Row>[];
  return (
    <div className="grid gap-2">
      <ol className="grid gap-2">
        {rows.map((row, at) => {
          const named = `${what} ${at + 1}`;
          return (
            <li key={row.key} className={isTall ? 'grid gap-1' : 'flex items-end gap-1'}>
              <div className="min-w-0 grow">{children(row, at)}</div>
              <span className="flex justify-end">
                {canReorder && (
                  <>
                    <IconButton
                      label={rowsWords.moveUp(named)}
                      isOff={at === 0}
                      onPress={() => form.reorder({ name: list.name, from: at, to: at - 1 })}
                    >
                      <ArrowUp size={16} aria-hidden />
                    </IconButton>
                    <IconButton
                      label={rowsWords.moveDown(named)}
                      isOff={at === rows.length - 1}
                      onPress={() => form.reorder({ name: list.name, from: at, to: at + 1 })}
                    >
                      <ArrowDown size={16} aria-hidden />
                    </IconButton>
                  </>
                )}
                {(mayRemove?.(row) ?? true) && (
                  <IconButton
                    label={rowsWords.takeAway(named)}
                    onPress={() => form.remove({ name: list.name, index: at })}
                  >
                    <X size={16} aria-hidden />
                  </IconButton>
                )}
              </span>
            </li>
          );
        })}
      </ol>
      <FieldMessage id={list.errorId} messages={list.errors} />
      <button
        type="button"
        className="btn btn-sm justify-self-start"
        onClick={() => form.insert({ name: list.name, defaultValue: blank() as never })}
      >
        <Plus size={16} aria-hidden />
        {rowsWords.add}
        {withArticle(what)}
      </button>
    </div>
  );
}
