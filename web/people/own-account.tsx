import type { SubmissionResult } from '@conform-to/react';
import { Link } from 'react-router';
import { emailChangeInput, ownNameInput, passwordChangeInput } from '~/core/people/account-input';
import { counted } from '~/core/words/counting';
import { TextField } from '../platform/ui/form-fields';
import { OneTap } from '../platform/ui/one-tap';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { ownAccountWords } from './entry-words';
import { NewPassword } from './new-password';
import { PasswordField } from './password-field';

type Result = SubmissionResult<string[]> | undefined;

/** What one is called, with what one signs in, and where one is signed in. */
interface OwnAccountProps {
  own: {
    name: string;
    work: string;
    email: string;
    factor: { isOn: boolean; codesLeft: number };
    sessions: { id: string; isShared: boolean; isThis: boolean; since: string; seen: string }[];
  };
  resultOf: (intent: string) => Result;
  /** The other address that was asked for just now. */
  asked: string | null;
  /** Without mail nothing can prove another address. */
  mailLeaves: boolean;
}

export function OwnAccount({ own, resultOf, asked, mailLeaves }: OwnAccountProps) {
  const { factor, sessions } = own;
  return (
    <>
      <Name own={own} result={resultOf('name')} />
      {mailLeaves && <Email email={own.email} asked={asked} result={resultOf('email')} />}
      <Password result={resultOf('password')} />
      <h2 className="mt-8 text-lg">{ownAccountWords.factor}</h2>
      <p className="mt-1 max-w-xl text-small text-ink-2">
        {factor.isOn
          ? ownAccountWords.factorOn(
              counted(factor.codesLeft, ownAccountWords.recoveryCode, ownAccountWords.recoveryCodes),
            )
          : ownAccountWords.factorIs}
      </p>
      <Link to="/account/second-factor" className="btn mt-3">
        {factor.isOn ? ownAccountWords.turnOff : ownAccountWords.setUp}
      </Link>
      <h2 className="mt-8 text-lg">{ownAccountWords.signedInOn}</h2>
      <ul className="mt-1 max-w-2xl">
        {sessions.map(({ id, isShared, isThis, since, seen }) => (
          <li key={id} className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-2.5">
            <p>
              <span className="font-semibold">
                {isThis ? ownAccountWords.thisOne : isShared ? ownAccountWords.shared : ownAccountWords.own}
              </span>{' '}
              <span className="text-small text-ink-2">{ownAccountWords.since(since, seen)}</span>
            </p>
            {!isThis && (
              <OneTap intent="end" values={{ id }} label={ownAccountWords.endOf(since)}>
                {ownAccountWords.end}
              </OneTap>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}

function Name({ own, result }: { own: OwnAccountProps['own']; result: Result }) {
  const { form, fields, isBusy } = useSchemaForm(ownNameInput, {
    id: 'name',
    result,
    defaultValue: { name: own.name, work: own.work },
  });
  return (
    <>
      <h2 className="mt-8 text-lg">{ownAccountWords.you}</h2>
      <SchemaForm form={form} intent="name" className="mt-3 grid max-w-2xl items-start gap-3 sm:grid-cols-2">
        <TextField field={fields.name} label={ownAccountWords.name} />
        <TextField field={fields.work} label={ownAccountWords.work} />
        <button type="submit" className="btn justify-self-start" disabled={isBusy}>
          {ownAccountWords.saveName}
        </button>
      </SchemaForm>
    </>
  );
}

function Email({ email, asked, result }: { email: string; asked: OwnAccountProps['asked']; result: Result }) {
  const { form, fields, isBusy } = useSchemaForm(emailChangeInput, { id: 'email', result });
  return (
    <>
      <h2 className="mt-8 text-lg">{ownAccountWords.email}</h2>
      <p className="mt-1 max-w-xl text-small text-ink-2">{ownAccountWords.emailIs(email)}</p>
      {asked && (
        <p role="status" className="mt-2 max-w-xl border-l-2 border-clay pl-3">
          {ownAccountWords.emailAsked(asked)}
        </p>
      )}
      <SchemaForm form={form} intent="email" className="mt-3 grid max-w-2xl items-start gap-3 sm:grid-cols-2">
        <TextField field={fields.email} label={ownAccountWords.newEmail} type="email" />
        <PasswordField field={fields.current} label={ownAccountWords.currentPassword} />
        <button type="submit" className="btn justify-self-start" disabled={isBusy}>
          {ownAccountWords.askEmail}
        </button>
      </SchemaForm>
    </>
  );
}

function Password({ result }: { result: Result }) {
  const { form, fields, isBusy } = useSchemaForm(passwordChangeInput, { id: 'password', result });
  return (
    <>
      <h2 className="mt-8 text-lg">{ownAccountWords.password}</h2>
      <SchemaForm form={form} intent="password" className="mt-3 grid max-w-2xl items-start gap-3 sm:grid-cols-2">
        <div className="sm:col-span-2 sm:pr-[calc(50%+0.375rem)]">
          <PasswordField field={fields.current} label={ownAccountWords.currentPassword} />
        </div>
        <NewPassword password={fields.password} again={fields.again} />
        <button type="submit" className="btn justify-self-start" disabled={isBusy}>
          {ownAccountWords.changePassword}
        </button>
      </SchemaForm>
    </>
  );
}
