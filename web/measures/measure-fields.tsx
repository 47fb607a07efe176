import { type FieldMetadata, getInputProps } from '@conform-to/react';
import type { ComponentType } from 'react';
import { newKey } from '~/core/goals/keys';
import { beginningOf, measureKinds, questions, usualLevels } from '~/core/goals/questions';
import { type MeasureDefinition, measureOf } from '~/core/measures/measure';
import { FieldMessage } from '../platform/ui/fields';
import { SelectField, TextField } from '../platform/ui/form-fields';
import { Rows } from '../platform/ui/rows';
import { type GoalForm, keysOf, Levels, NamedRows, Nouns, valuesOf } from './lists';

type Kind = MeasureDefinition['kind'];
type Of<K extends Kind> = Extract<MeasureDefinition, { kind: K }>;

interface MeasureProps<K extends Kind> {
  form: GoalForm;
  field: FieldMetadata<Of<K>>;
}

/** The measure, chosen by what one wants to know, and its settings. */
export function MeasureFields({
  form,
  field,
  kind,
}: {
  form: GoalForm;
  field: FieldMetadata<MeasureDefinition>;
  kind: Kind;
}) {
  const Settings = settings[kind] as ComponentType<{ form: GoalForm; field: FieldMetadata<MeasureDefinition> }>;
  const choose = (chosen: Kind) => {
    const measure = beginningOf(chosen);
    form.update({ name: field.name as 'measure', value: measure as never });
    form.update({ name: 'criterion', value: measureOf(measure).defaultCriterion(measure) as never });
  };
  return (
    <>
      <input type="hidden" name={`${field.name}.kind`} value={kind} />
      <fieldset>
        <legend className="sr-only">What do you want to know?</legend>
        <div className="grid gap-x-3 gap-y-1 sm:grid-cols-2">
          {measureKinds.map((one) => (
            <label
              key={one}
              className={`flex items-start gap-3 rounded-field border px-3 py-2 ${one === kind ? 'border-ink bg-sheet' : 'border-transparent hover:bg-wash'}`}
            >
              <input
                type="radio"
                name="question"
                checked={one === kind}
                onChange={() => choose(one)}
                className="radio radio-sm mt-0.5"
              />
              <span>
                <span className="font-semibold">{questions[one].question}</span>
                <span className="block text-small text-ink-2">{questions[one].example}</span>
              </span>
            </label>
          ))}
        </div>
      </fieldset>
      <div className="mt-5 grid gap-5">
        <Settings key={kind} form={form} field={field} />
      </div>
      <FieldMessage id={field.errorId} messages={field.errors} />
    </>
  );
}

const settings: { [K in Kind]: ComponentType<MeasureProps<K>> } = {
  trials: TrialsFields,
  items: ItemsFields,
  count: CountFields,
  duration: DurationFields,
  latency: LatencyFields,
  intervals: IntervalsFields,
  rubric: RubricFields,
  runningTotal: RunningTotalFields,
  steps: StepsFields,
  readingAloud: ReadingFields,
};

function TrialsFields({ form, field }: MeasureProps<'trials'>) {
  const { planned, chance, refusalIsOpportunity, levels, mostSupport } = field.getFieldset();
  return (
    <>
      <Nouns field={chance} what="chance" />
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField field={planned} label="Planned in a session, if the goal says" type="figure" className="w-24" />
        <SelectField
          field={refusalIsOpportunity}
          label="When help or work is declined"
          options={[
            { id: 'off', name: 'no chance: left out' },
            { id: 'on', name: 'a chance that was not taken' },
          ]}
        />
      </div>
      <Levels form={form} levels={levels} mostSupport={mostSupport} />
    </>
  );
}

function ItemsFields({ form, field }: MeasureProps<'items'>) {
  const { item, items, levels, mostSupport } = field.getFieldset();
  const keys = valuesOf(levels).map(({ key }) => key);
  const isPlain = keys.length === 1 && keys[0] === 'right';
  const plain = [{ key: 'right', label: 'Right', words: 'right' }];
  const change = (noted: boolean) => {
    form.update({ name: field.name as 'measure', value: { ...(field.value as object), ...levelsFor(noted) } as never });
  };
  const levelsFor = (noted: boolean) =>
    noted ? { levels: usualLevels, mostSupport: 'independent' } : { levels: plain, mostSupport: 'right' };
  return (
    <>
      <Nouns field={item} what="item" />
      <NamedRows form={form} list={items} stem="item" what="item" title="The items" />
      <label className="flex min-h-9 items-center gap-2.5">
        <input
          type="checkbox"
          checked={!isPlain}
          onChange={(event) => change(event.target.checked)}
          className="checkbox checkbox-sm"
        />
        Note how much help each one took
      </label>
      {isPlain ? <PlainLevel field={field} /> : <Levels form={form} levels={levels} mostSupport={mostSupport} />}
    </>
  );
}

/** Right or not yet: nothing to set. */
function PlainLevel({ field }: { field: FieldMetadata<Of<'items'>> }) {
  const { levels, mostSupport } = field.getFieldset();
  const level = levels.getFieldList()[0]?.getFieldset();
  if (!level) return null;
  return [level.key, level.label, level.words, mostSupport].map((one) => (
    <input {...getInputProps(one, { type: 'hidden' })} key={one.key} />
  ));
}

function CountFields({ field }: MeasureProps<'count'>) {
  const { per, sessionMinutes, counted } = field.getFieldset();
  return (
    <>
      <Nouns field={counted} what="of what is counted" />
      <div className="grid gap-4 sm:grid-cols-2">
        <SelectField
          field={per}
          label="Said as"
          options={[
            { id: 'hour', name: 'how many an hour' },
            { id: 'minute', name: 'how many a minute' },
            { id: 'session', name: 'how many a session' },
          ]}
        />
        <TextField
          field={sessionMinutes}
          label="Length of a session, where it is fixed"
          type="figure"
          unit="minutes"
          className="w-24"
        />
      </div>
    </>
  );
}

function DurationFields({ field }: MeasureProps<'duration'>) {
  const { of, unit, episode } = field.getFieldset();
  return (
    <>
      <Nouns field={episode} what="episode" />
      <div className="grid gap-4 sm:grid-cols-2">
        <SelectField
          field={of}
          label="The value is"
          options={[
            { id: 'total', name: 'all episodes together' },
            { id: 'episode', name: 'the mean of an episode' },
            { id: 'share', name: 'the share of the session' },
          ]}
        />
        <SelectField
          field={unit}
          label="In"
          options={[
            { id: 'minutes', name: 'minutes' },
            { id: 'seconds', name: 'seconds' },
          ]}
        />
      </div>
    </>
  );
}

function LatencyFields({ field }: MeasureProps<'latency'>) {
  return <Nouns field={field.getFieldset().cue} what="cue" />;
}

function IntervalsFields({ field }: MeasureProps<'intervals'>) {
  const { method, seconds, planned } = field.getFieldset();
  return (
    <div className="grid gap-4 sm:grid-cols-3">
      <SelectField
        field={method}
        label="Counts when it was there"
        options={[
          { id: 'momentary', name: 'at the end of the interval' },
          { id: 'partial', name: 'at any time in it' },
          { id: 'whole', name: 'all through it' },
        ]}
      />
      <TextField field={seconds} label="Length of an interval" type="figure" unit="seconds" className="w-24" />
      <TextField field={planned} label="Intervals in a session" type="figure" className="w-24" />
    </div>
  );
}

function RubricFields({ form, field }: MeasureProps<'rubric'>) {
  const { criteria, of } = field.getFieldset();
  const first = beginningOf('rubric') as Of<'rubric'>;
  return (
    <>
      <fieldset>
        <legend className="mb-1 text-small font-semibold">What is looked at, and what each level looks like</legend>
        <Rows
          form={form}
          list={criteria}
          what="criterion"
          canReorder
          isTall
          blank={() => ({ ...first.criteria[0], key: newKey('criterion', keysOf(criteria)), label: '' })}
        >
          {(row) => {
            const { key, label, levels } = row.getFieldset();
            return (
              <div className="grid gap-3 rounded-field bg-wash p-3">
                <input {...getInputProps(key, { type: 'hidden' })} key={key.key} />
                <TextField field={label} label="Criterion" />
                <Rows
                  form={form}
                  list={levels}
                  what="level"
                  blank={() => ({ points: Math.max(0, ...valuesOf(levels).map(({ points }) => Number(points))) + 1 })}
                >
                  {(level, at) => {
                    const { points, words } = level.getFieldset();
                    return (
                      <div className="grid grid-cols-[5rem_1fr] gap-2">
                        <TextField field={points} label="Points" hidesLabel={at > 0} type="figure" />
                        <TextField field={words} label="What it looks like" hidesLabel={at > 0} />
                      </div>
                    );
                  }}
                </Rows>
              </div>
            );
          }}
        </Rows>
      </fieldset>
      <SelectField
        field={of}
        label="The value is"
        className="w-full sm:w-80"
        options={[
          { id: 'mean', name: 'the mean of the criteria' },
          { id: 'sum', name: 'the sum of their points' },
          { id: 'percent', name: 'the share of the possible points' },
        ]}
      />
    </>
  );
}

function RunningTotalFields({ form, field }: MeasureProps<'runningTotal'>) {
  const { unit, total, categories } = field.getFieldset();
  return (
    <>
      <Nouns field={unit} what="unit" />
      <TextField field={total} label="What it should come to" type="figure" className="w-28" />
      <NamedRows form={form} list={categories} stem="category" what="category" title="Told apart by, if it is" />
    </>
  );
}

function StepsFields({ form, field }: MeasureProps<'steps'>) {
  const { steps, chaining, levels, mostSupport } = field.getFieldset();
  return (
    <>
      <NamedRows form={form} list={steps} stem="step" what="step" title="The steps, in order" />
      <SelectField
        field={chaining}
        label="Taught"
        className="w-full sm:w-80"
        options={[
          { id: 'whole', name: 'all steps at once' },
          { id: 'forward', name: 'from the first step on' },
          { id: 'backward', name: 'from the last step back' },
        ]}
      />
      <Levels form={form} levels={levels} mostSupport={mostSupport} />
    </>
  );
}

function ReadingFields({ field }: MeasureProps<'readingAloud'>) {
  const { seconds } = field.getFieldset();
  return (
    <TextField
      field={seconds}
      label="Length of a reading, if the goal says"
      type="figure"
      unit="seconds"
      className="w-24"
    />
  );
}
