import { getInputProps, type SubmissionResult } from '@conform-to/react';
import { Link, useNavigate } from 'react-router';
import { weekdayName } from '~/core/calendar/iso-date';
import { type RoundInput, roundInput } from '~/core/entries/rounds/round-input';
import { FieldMessage } from '../../platform/ui/fields';
import { CheckList, SelectField, TextField } from '../../platform/ui/form-fields';
import { SchemaForm, useSchemaForm } from '../../platform/ui/schema-form';
import { roundFormWords } from './words';

export interface RoundChoices {
  id: string;
  name: string;
  goals: { id: string; name: string }[];
}

interface RoundFormProps {
  round: Partial<RoundInput> & { id: string };
  students: RoundChoices[];
  /** The school’s forms for staff. */
  forms: { id: string; name: string }[];
  result: SubmissionResult<string[]> | undefined;
}

const weekdays = [1, 2, 3, 4, 5, 6, 7].map((day) => ({ id: String(day), name: weekdayName(day) }));

/** Who and what is in a round, and when it is usually gone through. */
export function RoundForm({ round, students, forms, result }: RoundFormProps) {
  const { form, fields, isBusy } = useSchemaForm(roundInput, {
    id: 'round',
    result,
    defaultValue: round,
  });
  const navigate = useNavigate();
  const once = (element: HTMLFormElement | null) => {
    const chosen = element ? new FormData(element).getAll(fields.goalIds.name) : [];
    if (chosen.length === 0) form.validate({ name: fields.goalIds.name });
    else void navigate(`/rounds/once?goals=${chosen.join('.')}`);
  };
  return (
    <SchemaForm form={form} className="mt-5 grid max-w-3xl gap-6 pb-24">
      <input {...getInputProps(fields.id, { type: 'hidden' })} key={fields.id.key} />
      <div className="grid gap-4 sm:grid-cols-[1fr_10rem_8rem]">
        <TextField field={fields.name} label={roundFormWords.name} placeholder={roundFormWords.mondayKitchen} />
        <SelectField
          field={fields.weekday}
          label={roundFormWords.usuallyOn}
          none={roundFormWords.anyDay}
          options={weekdays}
        />
        <TextField field={fields.startsAt} label={roundFormWords.at} type="time" />
      </div>
      <section className="grid gap-4">
        <h2 className="text-lg">{roundFormWords.whoAndWhat}</h2>
        <FieldMessage id={fields.goalIds.errorId} messages={fields.goalIds.errors} />
        {students.map(({ id, name, goals }) => (
          <CheckList key={id} field={fields.goalIds} hidesMessage legend={name} options={goals} />
        ))}
        {students.length === 0 && <p className="text-ink-2">{roundFormWords.youAreNotOnAny}</p>}
      </section>
      {forms.length > 0 && <CheckList field={fields.formIds} legend={roundFormWords.forms} options={forms} />}
      <div className="sticky bottom-0 -mx-2 flex flex-wrap gap-2 border-t border-rule bg-paper px-2 py-3">
        <button type="submit" className="btn btn-primary px-6" disabled={isBusy}>
          {roundFormWords.keepTheRound}
        </button>
        <button type="button" className="btn" onClick={(event) => once(event.currentTarget.form)}>
          {roundFormWords.goThroughItOnce}
        </button>
        <Link to="/rounds" className="btn">
          {roundFormWords.back}
        </Link>
      </div>
    </SchemaForm>
  );
}
