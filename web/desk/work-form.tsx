import { getInputProps, type SubmissionResult } from '@conform-to/react';
import { useRef } from 'react';
import { Link } from 'react-router';
import { v4 as newId } from 'uuid';
import { workInput } from '~/core/desk/steps';
import { CheckList, TextField } from '../platform/ui/form-fields';
import { GroupButtons } from '../platform/ui/group-buttons';
import { Rows } from '../platform/ui/rows';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { workFormWords } from './words';

interface WorkFormProps {
  work: { id: string; title: string; steps: { id: string; title: string; hint: string }[]; studentIds: string[] };
  students: { id: string; name: string; groups: string[] }[];
  result: SubmissionResult<string[]> | undefined;
}

/** A step that nothing is said of yet. Its id is its own from the beginning. */
export const newStep = () => ({ id: newId(), title: '', hint: '' });

/** What the work is called, its steps in order, and who has it. */
export function WorkForm({ work, students, result }: WorkFormProps) {
  const { form, fields, isBusy } = useSchemaForm(workInput, { id: 'work', result, defaultValue: work });
  const chosen = useRef<HTMLDivElement>(null);
  return (
    <SchemaForm isLong form={form} className="mt-5 grid max-w-3xl gap-6 pb-24">
      <input {...getInputProps(fields.id, { type: 'hidden' })} key={fields.id.key} />
      <TextField field={fields.title} label={workFormWords.title} placeholder={workFormWords.titleExample} />
      <section className="grid gap-2">
        <h2 className="text-lg">{workFormWords.steps}</h2>
        <Rows form={form} list={fields.steps} what="step" blank={newStep} canReorder>
          {(row, at) => {
            const step = row.getFieldset();
            return (
              <span className="grid gap-2 sm:grid-cols-[2fr_3fr]">
                <input {...getInputProps(step.id, { type: 'hidden' })} key={step.id.key} />
                <TextField field={step.title} label={workFormWords.step(at + 1)} />
                <TextField field={step.hint} label={workFormWords.hint} />
              </span>
            );
          }}
        </Rows>
      </section>
      <section ref={chosen} className="grid gap-3">
        <CheckList field={fields.studentIds} legend={workFormWords.who} options={students} />
        <GroupButtons students={students} within={chosen} />
      </section>
      <div className="sticky bottom-0 -mx-2 flex flex-wrap gap-2 border-t border-rule bg-paper px-2 py-3">
        <button type="submit" className="btn btn-primary px-6" disabled={isBusy}>
          {workFormWords.keep}
        </button>
        <Link to="/class/works" className="btn">
          {workFormWords.back}
        </Link>
      </div>
    </SchemaForm>
  );
}
