import { type DurationData, type DurationDefinition, duration, scoreDuration } from '~/core/measures/duration/duration';
import { isRunning, secondsOn, started, stopped, stoppedClock, stopwatch } from '../clock';
import { finishedOf } from '../finished';
import { LengthField } from '../length-field';
import { Live, needsOf, Pad, type SheetProps, TakeOut, usePads } from '../sheet';
import { useNow } from '../use-now';
import { durationSheetWords } from './words';

const NOTHING: DurationData = { episodes: [], sessionSeconds: null };

/** A stopwatch for each episode; every one can be corrected by hand. */
export function DurationSheet(props: SheetProps<DurationDefinition, DurationData>) {
  const { definition, criterion, data, clock, isActive, onMark } = props;
  const now = useNow(isRunning(clock));
  const { one, many } = definition.episode;
  const { episodes, sessionSeconds } = data ?? NOTHING;
  const toggle = () => {
    if (!isRunning(clock)) return onMark(data, started(stoppedClock, Date.now()));
    const seconds = Math.max(0.1, Math.round(10 * stopped(clock, Date.now()).before) / 10);
    onMark({ episodes: [...episodes, seconds], sessionSeconds }, stoppedClock);
  };
  const change = (at: number, seconds: number | null) =>
    onMark({
      episodes: seconds === null ? episodes.toSpliced(at, 1) : episodes.with(at, seconds),
      sessionSeconds,
    });
  usePads(isActive, [toggle]);
  const current = finishedOf(duration, props, now);
  const score = current && scoreDuration(definition, current);
  return (
    <>
      <div className="flex flex-wrap gap-3">
        <Pad
          at={0}
          showsKey={isActive}
          onPress={toggle}
          className={`min-w-48 flex-1 ${isRunning(clock) ? 'support-0' : 'support-3'}`}
        >
          <span className="display block text-3xl">{stopwatch(secondsOn(clock, now))}</span>
          <span className="text-small font-normal">
            {isRunning(clock) ? durationSheetWords.stopThis(one) : durationSheetWords.startThe(one)}
          </span>
        </Pad>
        {data === null && !isRunning(clock) && (
          <Pad at={null} showsKey={false} onPress={() => onMark(NOTHING)}>
            {durationSheetWords.watchedNo(many)}
          </Pad>
        )}
      </div>
      <div className="mt-3 flex min-h-11 flex-wrap items-center gap-x-5 gap-y-2">
        {episodes.map((seconds, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: an episode is its place
          <span key={`${at} of ${episodes.length}`} className="flex items-center gap-1">
            <LengthField label={`${at + 1}.`} seconds={seconds} onChange={(value) => value && change(at, value)} />
            <TakeOut what={`${one} ${at + 1}`} onPress={() => change(at, null)} />
          </span>
        ))}
        {data && (
          <LengthField
            label={durationSheetWords.session}
            seconds={sessionSeconds}
            onChange={(value) => onMark({ episodes, sessionSeconds: value })}
          />
        )}
        <Live figure={score?.value == null ? null : duration.said(definition, score.value)}>
          {needsOf(definition, criterion)}
        </Live>
      </div>
    </>
  );
}
