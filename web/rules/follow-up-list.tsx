import { useState } from 'react';
import { Link } from 'react-router';
import { FieldMessage } from '../platform/ui/fields';
import { LabelledInput, LabelledSelect } from '../platform/ui/labelled';
import { useSaving } from '../platform/ui/use-saving';
import type { ShownFollowUp } from './follow-up-view';
import { followUpsWords } from './words';

interface ListProps {
  followUps: readonly ShownFollowUp[];
  /** Whether it is said whose each is. */
  namesStudents: boolean;
  /** Those to whom each can be handed on, by student. */
  teams: Record<string, { id: string; name: string }[]>;
}

/** Follow-ups, each with what can be done with it. */
export function FollowUpList({ followUps, namesStudents, teams }: ListProps) {
  return (
    <ul className="mt-4 max-w-3xl">
      {followUps.map((one) => (
        <Item
          key={`${one.id} ${one.version}`}
          one={one}
          namesStudents={namesStudents}
          team={teams[one.studentId] ?? []}
        />
      ))}
    </ul>
  );
}

type Doing = 'done' | 'handedOn' | 'putOff' | 'reopened';
const doingWords: Record<Doing, string> = {
  done: followUpsWords.markDone,
  handedOn: followUpsWords.handOn,
  putOff: followUpsWords.putOff,
  reopened: followUpsWords.reopen,
};

function Item({
  one,
  namesStudents,
  team,
}: {
  one: ShownFollowUp;
  namesStudents: boolean;
  team: ListProps['teams'][string];
}) {
  const [doing, setDoing] = useState<Doing | null>(null);
  const choices: Doing[] = one.isDone
    ? ['reopened']
    : ['done', 'putOff', ...(team.length > 1 ? (['handedOn'] as const) : [])];
  return (
    <li className="border-b border-dotted border-ink-3/50 py-3">
      <div className="flex flex-wrap items-start justify-between gap-x-5 gap-y-1">
        <div className="min-w-60 flex-1">
          <p className={one.isDone ? 'text-ink-2' : 'font-bold'}>
            {namesStudents && (
              <Link to={`/students/${one.studentId}/follow-ups`} className="hover:underline">
                {one.student}
              </Link>
            )}
            {namesStudents && ' · '}
            {one.what}
          </p>
          <p className="text-small text-ink-2">
            <span className={one.isOverdue ? 'font-semibold text-clay-deep' : ''}>{one.due}</span> · {one.about}
            {one.because && (
              <>
                {' · '}
                <Link to={one.because.to} className="link">
                  {one.because.label}
                </Link>
              </>
            )}
          </p>
          {one.isWithdrawn && <p className="text-small text-ink-2">{followUpsWords.isWithdrawn}</p>}
          {one.history.map((said) => (
            <p key={said} className="text-small text-ink-2">
              {said}
            </p>
          ))}
        </div>
        {doing === null && (
          <p className="flex flex-wrap gap-2">
            {choices.map((choice) => (
              <button
                key={choice}
                type="button"
                aria-label={followUpsWords.of(doingWords[choice], one.what)}
                className={choice === 'done' ? 'btn btn-sm btn-primary' : 'btn btn-sm'}
                onClick={() => setDoing(choice)}
              >
                {doingWords[choice]}
              </button>
            ))}
          </p>
        )}
      </div>
      {doing && <Change {...{ one, doing, team }} onCancel={() => setDoing(null)} />}
    </li>
  );
}

interface ChangeProps {
  one: ShownFollowUp;
  doing: Doing;
  team: ListProps['teams'][string];
  onCancel: () => void;
}

/** One thing that is done with a follow-up, with a word about it. */
function Change({ one, doing, team, onCancel }: ChangeProps) {
  const [word, setWord] = useState('');
  const [to, setTo] = useState<string | null>(null);
  const [until, setUntil] = useState('');
  const { answer, isBusy, isUnreachable, save } = useSaving<{ messages: Record<string, string> }>(
    `/follow-ups/${one.id}`,
  );
  const messages = answer?.messages ?? {};
  return (
    <form
      className="mt-3 grid max-w-xl gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        save({ what: doing, word, forPerson: to ?? '', dueOn: until, version: one.version });
      }}
    >
      {doing === 'handedOn' && (
        <LabelledSelect
          label={followUpsWords.to}
          value={to}
          none="–"
          options={team.filter(({ id }) => id !== one.forPerson)}
          message={messages.forPerson}
          onChange={setTo}
        />
      )}
      {doing === 'putOff' && (
        <LabelledInput
          label={followUpsWords.until}
          type="date"
          value={until}
          message={messages.dueOn}
          onChange={setUntil}
        />
      )}
      <LabelledInput label={followUpsWords.word} value={word} message={messages.word} onChange={setWord} />
      <FieldMessage messages={messages.form ? [messages.form] : undefined} />
      {isUnreachable && <FieldMessage messages={[followUpsWords.unreachable]} />}
      <p className="flex gap-2">
        <button type="submit" className="btn btn-sm btn-primary" disabled={isBusy}>
          {doingWords[doing]}
        </button>
        <button type="button" className="btn btn-sm" onClick={onCancel}>
          {followUpsWords.cancel}
        </button>
      </p>
    </form>
  );
}
