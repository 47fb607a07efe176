import type { FieldMetadata, FormMetadata } from '@conform-to/react';
import { closestCenter, DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ArrowDown, ArrowUp, GripVertical, Plus, X } from 'lucide-react';
import { type ReactNode, useId } from 'react';
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
  const move = (from: number, to: number) => form.reorder({ name: list.name, from, to });
  return (
    <div className="grid gap-2">
      <Ordered ids={rows.map(({ key }) => key ?? '')} isOn={canReorder} onMove={move}>
        <ol className="grid gap-2">
          {rows.map((row, at) => {
            const named = `${what} ${at + 1}`;
            return (
              <Row
                key={row.key}
                id={row.key ?? ''}
                named={named}
                isTall={isTall}
                canDrag={canReorder && rows.length > 1}
              >
                <div className="min-w-0 grow">{children(row, at)}</div>
                <span className="flex justify-end">
                  {canReorder && (
                    <>
                      <IconButton label={rowsWords.moveUp(named)} isOff={at === 0} onPress={() => move(at, at - 1)}>
                        <ArrowUp size={16} aria-hidden />
                      </IconButton>
                      <IconButton
                        label={rowsWords.moveDown(named)}
                        isOff={at === rows.length - 1}
                        onPress={() => move(at, at + 1)}
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
              </Row>
            );
          })}
        </ol>
      </Ordered>
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

interface OrderedProps {
  ids: string[];
  isOn: boolean;
  onMove: (from: number, to: number) => void;
  children: ReactNode;
}

/** Rows that can be dragged by their handle, with a mouse, a pen or a finger; by key they are moved with their arrows. */
function Ordered({ ids, isOn, onMove, children }: OrderedProps) {
  const context = useId();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  if (!isOn) return children;
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over?.id))];
    if (from >= 0 && to >= 0 && from !== to) onMove(from, to);
  };
  return (
    <DndContext id={context} sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

interface RowProps {
  id: string;
  named: string;
  isTall: boolean;
  canDrag: boolean;
  children: ReactNode;
}

function Row({ id, named, isTall, canDrag, children }: RowProps) {
  const { listeners, setNodeRef, setActivatorNodeRef, transform, transition } = useSortable({ id, disabled: !canDrag });
  const rowClass = isTall ? 'grid gap-1' : 'flex items-end gap-1';
  return (
    <li ref={setNodeRef} style={{ transform: CSS.Translate.toString(transform), transition }} className={rowClass}>
      {canDrag && !isTall && (
        <span
          ref={setActivatorNodeRef}
          {...listeners}
          aria-hidden
          title={rowsWords.drag(named)}
          className="grid tap-square cursor-grab touch-none place-items-center text-ink-3"
        >
          <GripVertical size={16} />
        </span>
      )}
      {children}
    </li>
  );
}
