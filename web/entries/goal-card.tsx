import { type Dispatch, memo } from 'react';
import type { WallTime } from '~/core/calendar/zone';
import type { ObservedGoal } from '~/core/entries/waiting';
import { measureOf } from '~/core/measures/measure';
import { type NoScoreReason, noScoreReasons, noScoreWords } from '~/core/measures/score';
import { isRunning } from '../measures/clock';
import { DataSheet } from '../measures/data-sheet';
import { FieldMessage } from '../platform/ui/fields';
import { NamesInNote } from '../students/names-in-note';
import { type DraftChange, type GoalDraft, isMarked } from './draft';
import { Photographs } from './evidence/photographs';
import type { Photographs as Taken } from './evidence/use-photographs';
import { SupportSteps } from './support-steps';
import { goalCardWords } from './words';

interface GoalCardProps {
  goal: ObservedGoal;
  draft: GoalDraft;
  isActive: boolean;
  selected: number | null;
  openedAt: number;
  message: string | undefined;
  onChange: Dispatch<DraftChange>;
  timeNow: () => WallTime;
  /** Where photographs can be taken. */
  taken?: Taken;
  discreet?: boolean;
}

const NONE: ReturnType<Taken['of']> = [];

/** One goal while observing: its pads, its trial marks, and a word about it. */
export function GoalCard(props: GoalCardProps) {
  const { goal, draft, isActive, selected, openedAt, message, onChange, timeNow, taken, discreet = false } = props;
  const { id: goalId, measure, criterion } = goal;
  const photographs = taken?.of(goalId) ?? NONE;
  const activate = () => onChange({ type: 'activate', goalId });
  const isOpen = isActive || isMarked(draft) || draft.note !== '' || photographs.length > 0;
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: who comes by key brings the focus
    <section
      aria-labelledby={`goal-${goalId}`}
      data-active={isActive || undefined}
      // Nothing moves between pressing and lifting: a card opens with the click, not with the focus that the press brings.
      onFocus={({ target }) => target.matches(':focus-visible') && activate()}
      onClick={activate}
      className={`contain-content rounded-box border bg-sheet p-4 ${isActive ? 'border-ink-3' : 'border-rule'}`}
    >
      <header className="mb-3 flex flex-wrap items-baseline gap-x-3">
        <span className="display text-xl text-ink-3">{goal.number}</span>
        <h2 id={`goal-${goalId}`} className="text-lg">
          {goal.shortName}
        </h2>
        <p className="text-small text-ink-2 max-sm:w-full sm:ml-auto">{standing(goal, draft)}</p>
      </header>
      {isActive && goal.wording && (
        <p className="-mt-1.5 mb-3 line-clamp-2 text-small whitespace-pre-line text-ink-2">{goal.wording}</p>
      )}
      <DataSheet
        definition={measure}
        criterion={criterion}
        data={draft.data}
        clock={draft.clock}
        selected={selected}
        isActive={isActive}
        openedAt={openedAt}
        soFar={goal.soFar}
        pace={goal.pace}
        onMark={(data, clock) => onChange({ type: 'mark', goalId, data, ...(clock && { clock }), time: timeNow() })}
        onSelect={(at) => onChange({ type: 'select', goalId, at })}
      />
      {isOpen && (
        <>
          <textarea
            aria-label={goalCardWords.noteOn(goal.shortName)}
            aria-describedby={`goal-${goalId}-message`}
            placeholder={goalCardWords.noteOptional}
            rows={1}
            value={draft.note}
            onChange={(event) => onChange({ type: 'note', goalId, note: event.target.value })}
            className="textarea mt-3 min-h-11 w-full field-sizing-content"
          />
          {(goal.supportSteps ?? []).length > 0 && draft.reason === null && (
            <SupportSteps
              steps={goal.supportSteps ?? []}
              marks={draft.fidelity}
              onMark={(fidelity) => onChange({ type: 'fidelity', goalId, fidelity })}
            />
          )}
          <NamesInNote studentId={goal.studentId} text={draft.note} />
          {taken && <PhotographsOf goal={goal} photographs={photographs} taken={taken} discreet={discreet} />}
        </>
      )}
      {draft.data === null && !isRunning(draft.clock) && (
        <NoScore chosen={draft.reason} onChoose={(reason) => onChange({ type: 'reason', goalId, reason })} />
      )}
      <FieldMessage id={`goal-${goalId}-message`} messages={message ? [message] : undefined} />
    </section>
  );
}

/** They stay as they are while marks are tapped. */
const PhotographsOf = memo(function PhotographsOf(
  props: Required<Pick<GoalCardProps, 'goal' | 'taken' | 'discreet'>> & { photographs: ReturnType<Taken['of']> },
) {
  const { goal, photographs, taken, discreet } = props;
  return (
    <div className="mt-2.5">
      <Photographs
        of={goal.shortName}
        photographs={photographs}
        onChange={(some) => taken.change(goal.id, some)}
        hasRoomFor={taken.hasRoomFor}
        discreet={discreet}
      />
    </div>
  );
});

function standing({ measure }: ObservedGoal, { data, clock, reason }: GoalDraft): string {
  if (reason !== null) return noScoreWords[reason].label;
  if (isRunning(clock)) return goalCardWords.theClockIsRunning;
  if (data === null) return goalCardWords.nothingYet;
  if (measure.kind === 'trials' && 'trials' in data) {
    const { planned, opportunity } = measure;
    const n = data.trials.length;
    return planned
      ? goalCardWords.of(n, planned, opportunity.many)
      : `${n} ${n === 1 ? opportunity.one : opportunity.many}`;
  }
  const score = measureOf(measure).score(data);
  return score.value === null ? goalCardWords.noScoreYet : measureOf(measure).basis(score);
}

/** A session can end without a score, for a reason that is kept apart from zero. */
export function NoScore(props: { chosen: NoScoreReason | null; onChoose: (reason: NoScoreReason | null) => void }) {
  return (
    <fieldset className="mt-2.5 flex flex-wrap items-center gap-1.5 text-small">
      <legend className="float-left mr-2 text-ink-2">{goalCardWords.noScoreToday}</legend>
      {noScoreReasons.map((reason) => (
        <button
          key={reason}
          type="button"
          aria-pressed={props.chosen === reason}
          onClick={() => props.onChoose(props.chosen === reason ? null : reason)}
          className={`min-h-8 rounded-full border px-3 pointer-coarse:min-h-11 ${props.chosen === reason ? 'border-ink bg-wash font-semibold' : 'border-rule text-ink-2'}`}
        >
          {noScoreWords[reason].label}
        </button>
      ))}
    </fieldset>
  );
}
