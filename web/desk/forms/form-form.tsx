import { type FieldMetadata, getInputProps, getTextareaProps, type SubmissionResult } from '@conform-to/react';
import { useRef } from 'react';
import { Link } from 'react-router';
import { v4 as newId } from 'uuid';
import { formSides, type QuestionKind, questionKinds } from '~/core/entries/forms/form';
import { type FormInput, formInput, type QuestionInput } from '~/core/entries/forms/form-input';
import { Field } from '../../platform/ui/fields';
import { CheckList, SelectField, TextField } from '../../platform/ui/form-fields';
import { GroupButtons } from '../../platform/ui/group-buttons';
import { Rows } from '../../platform/ui/rows';
import { SchemaForm, useSchemaForm } from '../../platform/ui/schema-form';
import { formFormWords, questionKindWords, sideWords } from './words';

/** A question that nothing was typed of yet. Its id is its own from the beginning. */
export const newQuestion = (): QuestionInput => ({
  ...{ id: newId(), kind: 'text', ask: '', hint: '', isRequired: false, takesSeveral: false, options: '' },
  ...{ unit: '', least: '', most: '', lowBelow: '' },
});

const kindOptions = questionKinds.map((id) => ({ id, name: questionKindWords[id] }));
const sideOptions = formSides.map((id) => ({ id, name: sideWords[id] }));

interface FormFormProps {
  isNew: boolean;
  form: FormInput;
  students: { id: string; name: string; groups: string[] }[];
  result: SubmissionResult<string[]> | undefined;
}

/** What a form is called, who answers it, and what it asks. */
export function FormForm({ isNew, form: content, students, result }: FormFormProps) {
  const { form, fields, isBusy } = useSchemaForm(formInput, { id: 'form', result, defaultValue: content });
  const chosen = useRef<HTMLDivElement>(null);
  const side = isNew ? fields.side.value : content.side;
  return (
    <SchemaForm isLong form={form} className="mt-5 grid max-w-3xl gap-6 pb-24">
      <input {...getInputProps(fields.id, { type: 'hidden' })} key={fields.id.key} />
      <div className="grid gap-4 sm:grid-cols-[1fr_16rem]">
        <TextField field={fields.title} label={formFormWords.title} placeholder={formFormWords.titleExample} />
        {isNew ? (
          <SelectField field={fields.side} label={formFormWords.side} options={sideOptions} />
        ) : (
          <p className="self-end pb-2 text-small text-ink-2">
            {/* Whom its answers are about hangs on it. */}
            <input type="hidden" name={fields.side.name} value={content.side} />
            {sideWords[content.side]}
          </p>
        )}
      </div>
      <TextField field={fields.hint} label={formFormWords.hint} />
      <section className="grid gap-2">
        <h2 className="text-lg">{formFormWords.questions}</h2>
        <Rows form={form} list={fields.questions} what="question" blank={newQuestion} canReorder isTall>
          {(row, at) => <QuestionRow row={row} at={at} />}
        </Rows>
      </section>
      {side === 'self' && (
        <section ref={chosen} className="grid gap-3">
          <CheckList field={fields.studentIds} legend={formFormWords.who} options={students} />
          <GroupButtons students={students} within={chosen} />
        </section>
      )}
      <div className="sticky bottom-0 -mx-2 flex flex-wrap gap-2 border-t border-rule bg-paper px-2 py-3">
        <button type="submit" className="btn btn-primary px-6" disabled={isBusy}>
          {formFormWords.keep}
        </button>
        <Link to="/class/forms" className="btn">
          {formFormWords.back}
        </Link>
      </div>
    </SchemaForm>
  );
}

/** One question; what it needs besides its words hangs on its kind. */
function QuestionRow({ row, at }: { row: FieldMetadata<QuestionInput>; at: number }) {
  const question = row.getFieldset();
  const kind = (question.kind.value ?? 'text') as QuestionKind;
  const takesOptions = kind === 'choice' || kind === 'level';
  const check = (field: typeof question.isRequired, label: string) => (
    <label className="flex tap items-center gap-2.5 text-small">
      <input {...getInputProps(field, { type: 'checkbox' })} key={field.key} className="checkbox checkbox-sm" />
      {label}
    </label>
  );
  return (
    <div className="grid gap-3 rounded-box border border-rule bg-sheet p-3">
      <input {...getInputProps(question.id, { type: 'hidden' })} key={question.id.key} />
      <div className="grid gap-3 sm:grid-cols-[1fr_13rem]">
        <TextField field={question.ask} label={formFormWords.question(at + 1)} />
        <SelectField field={question.kind} label={formFormWords.answeredBy} options={kindOptions} />
      </div>
      {takesOptions && (
        <Field field={question.options} label={kind === 'level' ? formFormWords.levels : formFormWords.choices}>
          <textarea
            {...getTextareaProps(question.options)}
            key={question.options.key}
            rows={4}
            className="textarea w-full field-sizing-content"
          />
        </Field>
      )}
      {kind === 'number' && (
        <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
          <TextField field={question.unit} label={formFormWords.unit} />
          <TextField field={question.least} label={formFormWords.least} type="figure" />
          <TextField field={question.most} label={formFormWords.most} type="figure" />
          <TextField field={question.lowBelow} label={formFormWords.lowBelow} type="figure" />
        </div>
      )}
      <div className="grid items-end gap-x-5 gap-y-2 sm:grid-cols-[1fr_auto]">
        <TextField field={question.hint} label={formFormWords.questionHint} />
        <span className="flex flex-wrap gap-x-5">
          {check(question.isRequired, formFormWords.isRequired)}
          {kind === 'choice' && check(question.takesSeveral, formFormWords.takesSeveral)}
        </span>
      </div>
    </div>
  );
}
