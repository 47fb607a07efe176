import { getInputProps, type SubmissionResult } from '@conform-to/react';
import { Link } from 'react-router';
import { type StudentInput, studentInput } from '~/core/students/student-input';
import { CheckList, Question, SelectField, TextField } from '../platform/ui/form-fields';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { studentFormWords } from './words';

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
    <SchemaForm isLong form={form} className="mt-6 grid max-w-2xl gap-5">
      <input {...getInputProps(fields.id, { type: 'hidden' })} key={fields.id.key} />
      <input type="hidden" name="intent" value="student" />
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField field={fields.firstName} label={studentFormWords.firstName} />
        <TextField field={fields.lastName} label={studentFormWords.lastName} />
      </div>
      {/* Asked once, the question stays until it is answered. */}
      <Question
        field={fields.isSomeoneElse}
        question={result?.error?.isSomeoneElse}
        answer={studentFormWords.yesThisIsSomeoneElse}
      />
      <div className="grid gap-4 sm:grid-cols-3">
        <TextField field={fields.grade} label={studentFormWords.grade} />
        <TextField field={fields.shortName} label={studentFormWords.called} />
        <TextField field={fields.initials} label={studentFormWords.initials} />
      </div>
      {caseManager === undefined ? (
        <SelectField
          field={fields.caseManagerId}
          label={studentFormWords.caseManager}
          none={studentFormWords.choose}
          options={choices.people}
          className="w-full sm:w-72"
        />
      ) : (
        <p className="text-small">
          <input {...getInputProps(fields.caseManagerId, { type: 'hidden' })} key={fields.caseManagerId.key} />
          <span className="block font-semibold">{studentFormWords.caseManager}</span>
          {caseManager}
          <span className="block text-ink-2">{studentFormWords.onlyTheCaseManagerOr}</span>
        </p>
      )}
      <CheckList field={fields.groupIds} legend={studentFormWords.classGroups} options={choices.groups} />
      <div className="flex gap-2">
        <button type="submit" className="btn btn-primary px-6" disabled={isBusy}>
          {studentFormWords.save}
        </button>
        <Link to={backTo} className="btn">
          {studentFormWords.back}
        </Link>
      </div>
    </SchemaForm>
  );
}
