import type { SubmissionResult } from '@conform-to/react';
import { Form } from 'react-router';
import { counted } from '~/core/words/counting';
import { FieldMessage } from '../platform/ui/fields';
import { OneTap } from '../platform/ui/one-tap';
import { staffWords } from './staff-words';

interface StaffChangesProps {
  member: {
    id: string;
    name: string;
    isAdmin: boolean;
    manages: number;
    sessions: number;
    hasSecondFactor: boolean;
    opensDevices: boolean;
    isPinLocked: boolean;
  };
  /** Who may have their students. */
  others: { id: string; name: string }[];
  resultOf: (of: string) => SubmissionResult<string[]> | undefined;
}

/** What an administrator may do with somebody's account: each a button, and one that asks who has the students. */
export function StaffChanges({ member, others, resultOf }: StaffChangesProps) {
  const { id, name, isAdmin, manages, sessions, hasSecondFactor, opensDevices, isPinLocked } = member;
  const of = (intent: string, field: string) => resultOf(`${intent} ${id}`)?.error?.[field] ?? undefined;
  const wrong = ['admin', 'signOut', 'password', 'end'].flatMap((intent) => of(intent, 'personId') ?? []);
  return (
    <details className="mt-1" open={wrong.length > 0 || of('end', 'to') !== undefined || undefined}>
      <summary className="tap cursor-pointer text-small text-ink-2 link">
        {staffWords.change}
        <span className="sr-only">{` ${name}`}</span>
      </summary>
      <div className="grid max-w-2xl gap-4 py-3">
        <FieldMessage messages={wrong.length > 0 ? wrong : undefined} />
        <div className="flex flex-wrap gap-2">
          <OneTap intent="admin" values={{ personId: id, isAdmin: isAdmin ? 'no' : 'yes' }} isLarge>
            {isAdmin ? staffWords.noLongerAdmin : staffWords.makeAdmin}
          </OneTap>
          {!isAdmin && (
            <OneTap intent="devices" values={{ personId: id, may: opensDevices ? 'no' : 'yes' }} isLarge>
              {opensDevices ? staffWords.noLongerDevices : staffWords.letOpenDevices}
            </OneTap>
          )}
          {isPinLocked && (
            <OneTap intent="liftPin" values={{ personId: id }} isLarge>
              {staffWords.liftPin}
            </OneTap>
          )}
          {sessions > 0 && (
            <OneTap intent="signOut" values={{ personId: id }} isLarge>
              {staffWords.endSignIns}
            </OneTap>
          )}
        </div>
        <Form method="post" className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <input type="hidden" name="personId" value={id} />
          <button type="submit" name="intent" value="password" className="btn">
            {staffWords.newPassword}
          </button>
          {hasSecondFactor && (
            <label className="tap flex items-center gap-2 text-small">
              <input type="checkbox" name="forgetsFactor" className="checkbox checkbox-sm" />
              {staffWords.forgetsFactor}
            </label>
          )}
        </Form>
        <Form method="post" className="grid gap-2 border-l-2 border-clay pl-3">
          <input type="hidden" name="personId" value={id} />
          <p className="font-semibold">{staffWords.endWork}</p>
          <p className="text-small text-ink-2">{staffWords.endWorkIs}</p>
          {manages > 0 && (
            <label className="grid gap-1">
              <span className="text-small font-semibold">
                {staffWords.handOn(counted(manages, 'student', 'students'))}
              </span>
              <select name="to" defaultValue="" className="select w-full max-w-xs">
                <option value="">{staffWords.choose}</option>
                {others.map((other) => (
                  <option key={other.id} value={other.id}>
                    {other.name}
                  </option>
                ))}
              </select>
              <FieldMessage messages={of('end', 'to') ?? undefined} />
            </label>
          )}
          <button type="submit" name="intent" value="end" className="btn justify-self-start">
            {staffWords.end}
            <span className="sr-only">{` (${name})`}</span>
          </button>
        </Form>
      </div>
    </details>
  );
}
