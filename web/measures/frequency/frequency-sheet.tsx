import {
  type FrequencyData,
  type FrequencyDefinition,
  frequency,
  scoreFrequency,
} from '~/core/measures/frequency/frequency';
import { isRunning, secondsOn, stopped, stoppedClock, stopwatch } from '../clock';
import { finishedOf } from '../finished';
import { Live, NumberField, needsOf, Pad, type SheetProps, TakeBack, TextButton, usePads } from '../sheet';
import { useNow } from '../use-now';
import { frequencySheetWords } from './words';

/** A large count. The minutes come from the goal's own session, or from a clock that has run since the page was opened. */
export function FrequencySheet(props: SheetProps<FrequencyDefinition, FrequencyData>) {
  const { definition, criterion, data, clock, isActive, openedAt, onMark } = props;
  const now = useNow(isRunning(clock));
  const fixed = definition.sessionMinutes;
  const { one, many } = definition.counted;
  const minutes = data?.minutes ?? fixed ?? 0;
  const n = data?.count ?? 0;
  const record = (count: number) => {
    // Watching began when the page was opened, not with the first thing that is counted.
    const isFirst = data === null && fixed === null && openedAt !== null;
    onMark({ count, minutes }, isFirst ? { startedAt: openedAt, before: 0 } : undefined);
  };
  const add = (more: number) => record(Math.max(0, n + more));
  usePads(isActive, [() => add(1)], () => n > 0 && add(-1));
  const current = finishedOf(frequency, props, now);
  // The rate of a few seconds says nothing yet.
  const isTooSoon = isRunning(clock) && secondsOn(clock, now) < 60;
  const score = current && current.minutes > 0 && !isTooSoon ? scoreFrequency(definition, current) : null;
  return (
    <>
      <div className="flex flex-wrap items-stretch gap-3">
        <Pad at={0} showsKey={isActive} onPress={() => add(1)} className="min-w-48 flex-1 support-0">
          <span className="display block text-4xl">{n}</span>
          <span className="text-small font-normal">{frequencySheetWords.oneMore(one)}</span>
        </Pad>
        {data === null && (
          <Pad at={null} showsKey={false} onPress={() => record(0)}>
            {frequencySheetWords.watchedNo(many)}
          </Pad>
        )}
      </div>
      <div className="mt-3 flex min-h-11 flex-wrap items-center gap-x-5 gap-y-2">
        {data && n > 0 && <TakeBack showsKey={isActive} onPress={() => add(-1)} />}
        {isRunning(clock) ? (
          <p className="text-small text-ink-2">
            {frequencySheetWords.watchingFor}
            <span className="display text-lg text-ink">{stopwatch(secondsOn(clock, now))}</span>{' '}
            <TextButton
              onPress={() => {
                const still = stopped(clock, Date.now());
                onMark(data && { ...data, minutes: Math.max(0.1, Math.round(still.before / 6) / 10) }, still);
              }}
            >
              {frequencySheetWords.stopTheClock}
            </TextButton>
          </p>
        ) : (
          definition.per !== 'session' &&
          data && (
            <NumberField
              label={frequencySheetWords.watchedFor}
              unit="minutes"
              step="any"
              value={data?.minutes || null}
              onChange={(value) => onMark({ count: n, minutes: value ?? 0 }, stoppedClock)}
            />
          )
        )}
        {definition.per === 'session' && (
          <p className="text-small text-ink-2">
            {frequencySheetWords.in}
            {fixed}
            {frequencySheetWords.minutes}
          </p>
        )}
        <Live figure={score?.value == null ? null : frequency.said(definition, score.value)}>
          {needsOf(definition, criterion)}
        </Live>
      </div>
    </>
  );
}
