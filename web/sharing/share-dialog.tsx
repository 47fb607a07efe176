import type { SubmissionResult } from '@conform-to/react';
import { getInputProps } from '@conform-to/react';
import { useEffect, useState } from 'react';
import { Link, useFetcher } from 'react-router';
import { v4 as newId } from 'uuid';
import { shortDate } from '~/core/calendar/iso-date';
import { type OutsideKind, outsideKinds, readerWords } from '~/core/sharing/reader-kind';
import { shareNowInput } from '~/core/sharing/share-link';
import { listed } from '~/core/words/counting';
import { Dialog } from '../platform/ui/dialog';
import { Field, FieldMessage } from '../platform/ui/fields';
import { CheckField, SelectField, TextField } from '../platform/ui/form-fields';
import { NoMail } from '../platform/ui/no-mail';
import { SchemaForm, useSchemaForm } from '../platform/ui/schema-form';
import { CopyButton } from './copy-button';
import type { loader as visibilityLoader } from './visibility';
import { shareWords } from './words';

interface ShareDialogProps {
  studentId: string;
  onClose: () => void;
}

type Asked = ReturnType<typeof useFetcher<typeof import('./share').loader>>['data'];
type Answer = { made: Made | null; result: SubmissionResult<string[]> | null } | { unreachable: true };
interface Made {
  link: string;
  readerName: string;
  sentTo: string | null;
}

/** A report is shared in one go: with whom, what they see, until when, and whether they are told now. */
export default function ShareDialog({ studentId, onClose }: ShareDialogProps) {
  const path = `/students/${studentId}/sharing/share`;
  const { load, data: asked } = useFetcher<typeof import('./share').loader>();
  const sending = useFetcher<Answer>();
  useEffect(() => void load(path), [load, path]);
  const made = sending.data && 'made' in sending.data ? sending.data.made : null;
  return (
    <Dialog title={shareWords.shareReport} onClose={onClose}>
      <div className="p-5 sm:p-6">
        <h2 className="text-xl">{shareWords.shareReport}</h2>
        {made ? (
          <MadeLink made={made} onClose={onClose} />
        ) : (
          asked && <ShareForm {...{ path, studentId, asked, sending, onClose }} />
        )}
      </div>
    </Dialog>
  );
}

interface ShareFormProps extends ShareDialogProps {
  path: string;
  asked: NonNullable<Asked>;
  sending: ReturnType<typeof useFetcher<Answer>>;
}

function ShareForm({ path, studentId, asked, sending, onClose }: ShareFormProps) {
  const [id] = useState(() => newId());
  const result = sending.data && 'result' in sending.data ? sending.data.result : undefined;
  const { form, fields } = useSchemaForm(shareNowInput, {
    result,
    defaultValue: { endsOn: asked.usualEnd, kind: 'family' },
  });
  const isUnreachable = sending.data !== undefined && 'unreachable' in sending.data;
  const kind = outsideKinds.find((one) => one === fields.kind.value) ?? 'family';
  return (
    <SchemaForm form={form} action={path} as={sending.Form} className="mt-3 grid gap-4">
      <input type="hidden" name="id" value={id} />
      <TextField field={fields.readerName} label={shareWords.whoReads} placeholder={shareWords.example} />
      <SelectField
        field={fields.kind}
        label={shareWords.kind}
        options={outsideKinds.map((one) => ({ id: one, name: readerWords[one].label }))}
      />
      <Seen studentId={studentId} kind={kind} fields={asked.seen[kind] ?? []} />
      <Field field={fields.endsOn} label={shareWords.openUntil}>
        <input
          {...getInputProps(fields.endsOn, { type: 'date' })}
          key={fields.endsOn.key}
          min={asked.today}
          max={asked.lastDay}
          className="input w-full"
        />
      </Field>
      <TextField field={fields.passcode} label={shareWords.passcode} />
      <NoMail isWithoutMail={asked.isWithoutMail} />
      <TextField field={fields.email} label={shareWords.email} />
      <CheckField field={fields.sendsNow} label={shareWords.sendNow} />
      {isUnreachable && <FieldMessage messages={[shareWords.unreachable]} />}
      <div className="flex flex-wrap justify-end gap-2">
        <button type="button" className="btn" onClick={onClose}>
          {shareWords.cancel}
        </button>
        <button type="submit" className="btn btn-primary" disabled={sending.state !== 'idle'}>
          {shareWords.share}
        </button>
      </div>
    </SchemaForm>
  );
}

/** What this kind of reader sees, in words and by the newest entry. */
function Seen({ studentId, kind, fields }: { studentId: string; kind: OutsideKind; fields: readonly string[] }) {
  const { load, data } = useFetcher<typeof visibilityLoader>();
  useEffect(() => void load(`/students/${studentId}/sharing/visibility?as=${kind}`), [load, studentId, kind]);
  const preview = data?.preview.kind === kind ? data.preview.entries[0] : undefined;
  return (
    <div className="rounded-box border border-rule bg-paper p-3 text-small" aria-live="polite">
      <p>
        <span className="font-semibold">{shareWords.theySee}:</span> {listed([shareWords.alwaysSeen, ...fields])}.{' '}
        <Link to={`/students/${studentId}/sharing/visibility`} className="link">
          {shareWords.change}
        </Link>
      </p>
      {preview && (
        <div className="mt-2 border-l-2 border-rule pl-3">
          <p className="text-ink-2">
            {shareWords.anExample}: {[shortDate(preview.on), preview.about].filter(Boolean).join(' · ')}
          </p>
          <p className="font-bold">{preview.title}</p>
          <p>{preview.sentence}</p>
          {preview.note && <p className="text-ink-2">{preview.note}</p>}
        </div>
      )}
      {data && data.preview.entries.length === 0 && <p className="mt-2 text-ink-2">{shareWords.nothingToSee}</p>}
    </div>
  );
}

function MadeLink({ made: { link, readerName, sentTo }, onClose }: { made: Made; onClose: () => void }) {
  // Where the device has a sheet of its own for that.
  const canSendOn = typeof navigator.share === 'function';
  return (
    <div className="mt-3 grid gap-3" role="status">
      <h3 className="text-lg">{shareWords.theLinkFor(readerName)}</h3>
      {sentTo && <p>{shareWords.isSent(sentTo)}</p>}
      <p className="text-small text-ink-2">{shareWords.shownOnlyNow}</p>
      <input
        readOnly
        aria-label={shareWords.theLink}
        value={link}
        onFocus={(event) => event.target.select()}
        className="input w-full"
      />
      <div className="flex flex-wrap justify-end gap-2">
        {canSendOn && (
          <button type="button" className="btn" onClick={() => void navigator.share({ url: link }).catch(() => {})}>
            {shareWords.sendOn}
          </button>
        )}
        <CopyButton text={link} />
        <button type="button" className="btn btn-primary" onClick={onClose}>
          {shareWords.done}
        </button>
      </div>
    </div>
  );
}
