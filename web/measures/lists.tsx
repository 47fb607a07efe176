import { type FieldMetadata, type FormMetadata, getInputProps } from '@conform-to/react';
import type { GoalInput } from '~/core/goals/goal-input';
import { linesOf, newKey, withLines } from '~/core/goals/keys';
import type { DefinitionOf, Kind } from '~/core/measures/measure';
import { type SupportLevel, usualLevels } from '~/core/measures/support-levels';
import { FieldMessage } from '../platform/ui/fields';
import { SelectField, TextField } from '../platform/ui/form-fields';
import { Rows } from '../platform/ui/rows';
import { listsWords } from './words';

export type GoalForm = FormMetadata<GoalInput>;

/** What the settings of a kind of measure are given. */
export interface MeasureProps<K extends Kind> {
  form: GoalForm;
  field: FieldMetadata<DefinitionOf<K>>;
}

/** What the goal's own thing is called in sentences. */
export function Nouns({ field, what }: { field: FieldMetadata<{ one: string; many: string }>; what: string }) {
  const { one, many } = field.getFieldset();
  return (
    <div className="grid grid-cols-2 gap-4">
      <TextField field={one} label={what === 'unit' ? listsWords.nameForOne : listsWords.nameForOneOf(what)} />
      <TextField field={many} label={listsWords.nameForSeveral} />
    </div>
  );
}

type Row = Record<string, unknown> & { key: string };
export const valuesOf = (list: FieldMetadata<never[]> | { value?: unknown }) =>
  // Conform gives the raw value of a list: rows as they were put in, some perhaps empty.
  ((list.value as Row[] | undefined) ?? []).filter(Boolean);
export const keysOf = (list: { value?: unknown }) => valuesOf(list).map(({ key }) => key);

interface NamedRowsProps {
  form: GoalForm;
  list: FieldMetadata<{ key: string; label: string }[]>;
  stem: string;
  what: string;
  title: string;
}

/** A list of names; several lines that are pasted become several rows. */
export function NamedRows({ form, list, stem, what, title }: NamedRowsProps) {
  const blank = () => ({ key: newKey(stem, keysOf(list)), label: '' });
  const paste = (at: number) => (event: React.ClipboardEvent<HTMLInputElement>) => {
    const lines = linesOf(event.clipboardData.getData('text'));
    if (lines.length < 2) return;
    event.preventDefault();
    // Conform’s types cannot follow a name that is computed.
    form.update({ name: list.name as 'measure', value: withLines(valuesOf(list), at, lines, stem) as never });
  };
  return (
    <fieldset>
      <legend className="mb-1 text-small font-semibold">{title}</legend>
      <Rows form={form} list={list} what={what} canReorder blank={blank}>
        {(row, at) => {
          const { key, label } = row.getFieldset();
          return (
            <>
              <input {...getInputProps(key, { type: 'hidden' })} key={key.key} />
              <input
                {...getInputProps(label, { type: 'text' })}
                key={label.key}
                aria-label={listsWords.nameOf(what, at + 1)}
                autoComplete="off"
                onPaste={paste(at)}
                className="input w-full"
              />
              <FieldMessage id={label.errorId} messages={label.errors} />
            </>
          );
        }}
      </Rows>
    </fieldset>
  );
}

interface LevelsProps {
  form: GoalForm;
  levels: FieldMetadata<SupportLevel[]>;
  mostSupport: FieldMetadata<string>;
}

/** The goal's own ordered support levels, and how much help still counts. */
function Levels({ form, levels, mostSupport }: LevelsProps) {
  const named = valuesOf(levels).map(({ key, label }) => ({ id: key, name: String(label || '…') }));
  return (
    <fieldset className="grid gap-3">
      <legend className="mb-1 text-small font-semibold">{listsWords.supportLevelsFromTheLeast}</legend>
      <Rows
        form={form}
        list={levels}
        what="level"
        canReorder
        blank={() => ({ key: newKey('level', keysOf(levels)), label: '', words: '' })}
      >
        {(row, at) => {
          const { key, label, words } = row.getFieldset();
          return (
            <div className="grid grid-cols-2 gap-x-2 gap-y-1">
              <input {...getInputProps(key, { type: 'hidden' })} key={key.key} />
              <TextField field={label} label={listsWords.onItsButton} hidesLabel={at > 0} />
              <TextField
                field={words}
                label={listsWords.inSentences}
                hidesLabel={at > 0}
                placeholder={listsWords.aGesture}
              />
              <p className="col-start-2 text-small text-ink-2">
                {listsWords.reads(String(words.value || '…'), at === 0)}
              </p>
            </div>
          );
        }}
      </Rows>
      <SelectField
        field={mostSupport}
        label={listsWords.countsAsASuccessUp}
        options={named}
        className="w-full sm:w-72"
      />
    </fieldset>
  );
}

interface SupportProps {
  form: GoalForm;
  /** The definition that has levels. */
  field: { name: string; value?: unknown };
  levels: FieldMetadata<SupportLevel[]>;
  mostSupport: FieldMetadata<string>;
}

const PLAIN = 'right';
const plainLevel: SupportLevel = { key: PLAIN, label: listsWords.right, words: PLAIN };

/** Plain right or wrong, or how much help each one took. */
export function SupportOrPlain({ form, field, levels, mostSupport }: SupportProps) {
  const keys = keysOf(levels);
  const isPlain = keys.length === 1 && keys[0] === PLAIN;
  const change = (notesHelp: boolean) => {
    const chosen = notesHelp
      ? { levels: usualLevels, mostSupport: usualLevels[0]?.key }
      : { levels: [plainLevel], mostSupport: PLAIN };
    // Conform’s types cannot follow a name that is computed.
    form.update({ name: field.name as 'measure', value: { ...(field.value as object), ...chosen } as never });
  };
  const level = levels.getFieldList()[0]?.getFieldset();
  return (
    <>
      <fieldset className="grid gap-1">
        <legend className="mb-1 text-small font-semibold">{listsWords.whatIsNoted}</legend>
        {[false, true].map((notesHelp) => (
          <label key={String(notesHelp)} className="flex tap items-center gap-2.5">
            <input
              type="radio"
              name={`${field.name}-notes-help`}
              form=""
              checked={isPlain !== notesHelp}
              onChange={() => change(notesHelp)}
              className="radio radio-sm"
            />
            {notesHelp ? listsWords.howMuchHelp : listsWords.rightOrWrong}
          </label>
        ))}
      </fieldset>
      {isPlain && level ? (
        [level.key, level.label, level.words, mostSupport].map((one) => (
          <input {...getInputProps(one, { type: 'hidden' })} key={one.key} />
        ))
      ) : (
        <Levels form={form} levels={levels} mostSupport={mostSupport} />
      )}
    </>
  );
}
