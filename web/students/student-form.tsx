import { getInputProps, type SubmissionResult } from '@conform-to/react';
import { Link } from 'react-router';
import { type StudentInput, studentInput } from '~/core/students/student-input';
import { CheckList, Question, SelectField, TextField } from '../platform/ui/form-fields';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';

interface StudentFormProps {
  /** What the form begins with. */
  student: Partial<StudentInput> & { id: string };
  choices: { groups: { id: string; name: string }[]; people: { id: string; name: string }[] };
  /** Their name, where the one who asks may not hand the student on. */
  caseManager?: string | undefined;
  result: SubmissionResult<string[]> | undefined;
  backTo: string;
}

/** What the roster says of a student. */
export function StudentForm({ student, choices, caseManager, result, backTo }: StudentFormProps) {
  const { form, fields, isBusy } = useSchemaForm(studentInput, {
    id: 'student',
    result,
    defaultValue: student,
  });
  return (
    <SchemaForm form={form} className="mt-6 grid max-w-2xl gap-5">
      <input {...getInputProps(fields.id, { type: 'hidden' })} key={fields.id.key} />
      <input type="hidden" name="intent" value="student" />
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField field={fields.firstName} label="First name" />
        <TextField field={fields.lastName} label="Last name" />
      </div>
      {/* Asked once, the question stays until it is answered. */}
      <Question
        field={fields.isSomeoneElse}
        question={result?.error?.isSomeoneElse}
        answer="Yes, this is someone else"
      />
      <div className="grid gap-4 sm:grid-cols-3">
        <TextField field={fields.grade} label="Grade" />
        <TextField field={fields.shortName} label="Called" />
        <TextField field={fields.initials} label="Initials" />
      </div>
      {caseManager === undefined ? (
        <SelectField
          field={fields.caseManagerId}
          label="Case manager"
          none="Choose …"
          options={choices.people}
          className="w-full sm:w-72"
        />
      ) : (
        <p className="text-small">
          <input {...getInputProps(fields.caseManagerId, { type: 'hidden' })} key={fields.caseManagerId.key} />
          <span className="block font-semibold">Case manager</span>
          {caseManager}
          <span className="block text-ink-2">
            Only the case manager, or who sets up the school, hands a student on.
          </span>
        </p>
      )}
      <CheckList field={fields.groupIds} legend="Class groups" options={choices.groups} />
      <div className="flex gap-2">
        <button type="submit" className="btn btn-primary px-6" disabled={isBusy}>
          Save
        </button>
        <Link to={backTo} className="btn">
          Back
        </Link>
      </div>
    </SchemaForm>
  );
}
