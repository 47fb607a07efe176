import { getInputProps } from '@conform-to/react';
import { newKey } from '~/core/goals/keys';
import { rubric } from '~/core/measures/rubric/rubric';
import { SelectField, TextField } from '../../platform/ui/form-fields';
import { Rows } from '../../platform/ui/rows';
import { keysOf, type MeasureProps, valuesOf } from '../lists';
import { rubricFieldsWords } from './words';

export function RubricFields({ form, field }: MeasureProps<'rubric'>) {
  const { criteria, of } = field.getFieldset();
  const first = rubric.beginning;
  /** The levels of one criterion become those of all: most rubrics have one scale. */
  const copyLevels = (from: string) => {
    const rows = valuesOf(criteria);
    const levels = rows.find(({ key }) => key === from)?.levels;
    // Conform’s types cannot follow a name that is computed.
    form.update({ name: criteria.name as 'measure', value: rows.map((row) => ({ ...row, levels })) as never });
  };
  return (
    <>
      <fieldset>
        <legend className="mb-1 text-small font-semibold">{rubricFieldsWords.whatIsLookedAtAnd}</legend>
        <Rows
          form={form}
          list={criteria}
          what="criterion"
          canReorder
          isTall
          blank={() => ({ ...first.criteria[0], key: newKey('criterion', keysOf(criteria)), label: '' })}
        >
          {(row) => {
            const { key, label, levels, isOverall } = row.getFieldset();
            return (
              <div className="grid gap-3 rounded-field bg-wash p-3">
                <input {...getInputProps(key, { type: 'hidden' })} key={key.key} />
                <TextField field={label} label={rubricFieldsWords.criterion} />
                <label className="flex tap items-center gap-2 text-small">
                  <input
                    {...getInputProps(isOverall, { type: 'checkbox' })}
                    key={isOverall.key}
                    className="checkbox checkbox-sm"
                  />
                  {rubricFieldsWords.overallMark}
                </label>
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
                        <TextField field={points} label={rubricFieldsWords.points} hidesLabel={at > 0} type="figure" />
                        <TextField field={words} label={rubricFieldsWords.whatItLooksLike} hidesLabel={at > 0} />
                      </div>
                    );
                  }}
                </Rows>
                {valuesOf(criteria).length > 1 && (
                  <button
                    type="button"
                    className="tap justify-self-start text-small link"
                    onClick={() => copyLevels(String(key.value))}
                  >
                    {rubricFieldsWords.sameLevels}
                  </button>
                )}
              </div>
            );
          }}
        </Rows>
      </fieldset>
      <SelectField
        field={of}
        label={rubricFieldsWords.theValueIs}
        className="w-full sm:w-80"
        options={[
          { id: 'mean', name: rubricFieldsWords.theMeanOfTheCriteria },
          { id: 'sum', name: rubricFieldsWords.theSumOfTheirPoints },
          { id: 'percent', name: rubricFieldsWords.theShareOfThePossible },
        ]}
      />
    </>
  );
}
