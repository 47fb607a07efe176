import { getFormProps, getInputProps, getSelectProps, type SubmissionResult, useForm } from '@conform-to/react';
import { parseWithZod } from '@conform-to/zod/v4';
import { Form, Link, useNavigation } from 'react-router';
import { type StudentInput, studentInput } from '~/core/students/student-input';
import { refusal } from '~/core/words/refusal';
import { Field, FieldMessage, FormMessage } from '../ui/fields';

interface StudentFormProps {
  /** What the form begins with. */
  student: Partial<StudentInput> & { id: string };
  choices: { groups: { id: string; name: string }[]; people: { id: string; name: string }[] };
  result: SubmissionResult<string[]> | undefined;
  backTo: string;
}

/** What the roster says of a student. */
export function StudentForm({ student, choices, result, backTo }: StudentFormProps) {
  const [form, fields] = useForm<StudentInput>({
    id: 'student',
    lastResult: result,
    defaultValue: student,
    onValidate: ({ formData }) => parseWithZod(formData, { schema: studentInput, error: refusal }),
    shouldRevalidate: 'onInput',
  });
  const isBusy = useNavigation().state !== 'idle';
  const { isSomeoneElse, groupIds } = fields;
  return (
    <Form method="post" {...getFormProps(form)} className="mt-6 grid max-w-2xl gap-5">
      <input {...getInputProps(fields.id, { type: 'hidden' })} key={fields.id.key} />
      <input type="hidden" name="intent" value="student" />
      <FormMessage form={form} />
      <div className="grid gap-4 sm:grid-cols-2">
        <Field field={fields.firstName} label="First name">
          <input
            {...getInputProps(fields.firstName, { type: 'text' })}
            key={fields.firstName.key}
            className="input w-full"
            autoComplete="off"
          />
        </Field>
        <Field field={fields.lastName} label="Last name">
          <input
            {...getInputProps(fields.lastName, { type: 'text' })}
            key={fields.lastName.key}
            className="input w-full"
            autoComplete="off"
          />
        </Field>
      </div>
      {isSomeoneElse.errors && (
        <div className="rounded-field border border-clay bg-clay-wash px-4 py-3">
          <FieldMessage id={isSomeoneElse.errorId} messages={isSomeoneElse.errors} />
          <label className="mt-2 flex min-h-9 items-center gap-2.5">
            <input
              {...getInputProps(isSomeoneElse, { type: 'checkbox' })}
              key={isSomeoneElse.key}
              className="checkbox checkbox-sm"
            />
            Yes, this is someone else
          </label>
        </div>
      )}
      <div className="grid gap-4 sm:grid-cols-3">
        <Field field={fields.grade} label="Grade">
          <input
            {...getInputProps(fields.grade, { type: 'text' })}
            key={fields.grade.key}
            placeholder="Grade 4"
            className="input w-full"
          />
        </Field>
        <Field field={fields.shortName} label="Called">
          <input
            {...getInputProps(fields.shortName, { type: 'text' })}
            key={fields.shortName.key}
            placeholder="Ansel D."
            className="input w-full"
          />
        </Field>
        <Field field={fields.initials} label="Initials">
          <input
            {...getInputProps(fields.initials, { type: 'text' })}
            key={fields.initials.key}
            placeholder="AD"
            className="input w-full"
          />
        </Field>
      </div>
      <Field field={fields.caseManagerId} label="Case manager">
        <select
          {...getSelectProps(fields.caseManagerId)}
          key={fields.caseManagerId.key}
          className="select w-full sm:w-72"
        >
          <option value="">Choose …</option>
          {choices.people.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </Field>
      <fieldset className="grid gap-1">
        <legend className="mb-1 text-small font-semibold">Class groups</legend>
        <div className="flex flex-wrap gap-x-6">
          {choices.groups.map(({ id, name }) => (
            <label key={id} className="flex min-h-9 items-center gap-2.5">
              <input
                type="checkbox"
                name={groupIds.name}
                value={id}
                defaultChecked={student.groupIds?.includes(id)}
                className="checkbox checkbox-sm"
              />
              {name}
            </label>
          ))}
        </div>
        <FieldMessage id={groupIds.errorId} messages={groupIds.errors} />
      </fieldset>
      <div className="flex gap-2">
        <button type="submit" className="btn btn-primary h-11 px-6" disabled={isBusy}>
          Save
        </button>
        <Link to={backTo} className="btn h-11">
          Back
        </Link>
      </div>
    </Form>
  );
}
