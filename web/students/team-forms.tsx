import { getInputProps, type SubmissionResult } from '@conform-to/react';
import type { IsoDate } from '~/core/calendar/iso-date';
import { grantable, grantedWords, roleWords } from '~/core/students/roles';
import { invitationInput, joinableRoles, memberInput } from '~/core/students/team-input';
import { CheckList, SelectField, TextField } from '../platform/ui/form-fields';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { useFreshId } from '../platform/ui/use-fresh-id';
import { studentTeamWords } from './words';

const roleOptions = joinableRoles.map((id) => ({ id, name: roleWords[id] }));
const rightOptions = grantable.map((id) => ({ id, name: grantedWords[id] }));

/** Somebody is asked to join by their address. */
export function InvitationForm({ result }: { result: SubmissionResult<string[]> | undefined }) {
  const { form, fields, isBusy } = useSchemaForm(invitationInput, {
    id: 'invite',
    result,
    defaultValue: { role: 'educator', rights: ['observe'] },
  });
  const id = useFreshId(result);
  return (
    <SchemaForm form={form} intent="invite" className="grid gap-4">
      <input type="hidden" name="id" value={id} />
      <TextField field={fields.name} label={studentTeamWords.name} />
      <TextField field={fields.email} label={studentTeamWords.email} />
      <SelectField field={fields.role} label={studentTeamWords.whatTheyAreToThe} options={roleOptions} />
      <CheckList field={fields.rights} legend={studentTeamWords.theyMay} options={rightOptions} />
      <TextField field={fields.until} label={studentTeamWords.untilIfItEnds} type="date" />
      <button type="submit" className="btn btn-primary" disabled={isBusy || id === ''}>
        {studentTeamWords.invite}
      </button>
    </SchemaForm>
  );
}

interface MemberFormProps {
  /** Of the person who is changed; or that somebody is added. */
  id: string;
  member?: { id: string; name: string; role: string; rights: readonly string[]; until: IsoDate | null };
  people?: { id: string; name: string }[];
  /** On whose teams they may come in the same step. */
  others?: { id: string; name: string }[];
  from: IsoDate;
  result: SubmissionResult<string[]> | undefined;
}

/** Somebody of the school is put on the team, or what they may do there is changed. */
export function MemberForm({ id, member, people, others = [], from, result }: MemberFormProps) {
  const { form, fields, isBusy } = useSchemaForm(memberInput, {
    id: `member-${id}`,
    result,
    defaultValue: member
      ? { role: member.role, rights: [...member.rights], from, until: member.until ?? '' }
      : { role: 'educator', rights: ['observe'], from },
  });
  return (
    <SchemaForm form={form} intent={id} className="grid max-w-xl gap-4 py-2">
      {member && <input {...getInputProps(fields.personId, { type: 'hidden', value: false })} value={member.id} />}
      {people && (
        <SelectField
          field={fields.personId}
          label={studentTeamWords.who}
          none={studentTeamWords.choose}
          options={people}
        />
      )}
      <SelectField field={fields.role} label={studentTeamWords.whatTheyAreToThe} options={roleOptions} />
      <CheckList
        field={fields.rights}
        legend={member ? studentTeamWords.may(member.name) : studentTeamWords.theyMay}
        options={rightOptions}
      />
      <div className="grid grid-cols-2 gap-3">
        <TextField field={fields.from} label={studentTeamWords.from} type="date" />
        <TextField field={fields.until} label={studentTeamWords.until} type="date" />
      </div>
      {others.length > 0 && (
        <details>
          <summary className="tap cursor-pointer text-small font-semibold">{studentTeamWords.alsoOnTheTeams}</summary>
          <CheckList field={fields.alsoOf} legend={studentTeamWords.withTheSame} options={others} />
        </details>
      )}
      <button type="submit" className={`btn ${member ? '' : 'btn-primary'}`} disabled={isBusy}>
        {member ? studentTeamWords.save : studentTeamWords.putOnTheTeam}
      </button>
    </SchemaForm>
  );
}
