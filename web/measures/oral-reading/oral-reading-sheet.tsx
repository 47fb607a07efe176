import {
  accuracyOf,
  bandWords,
  type OralReadingData,
  type OralReadingDefinition,
  oralReading,
  scoreOralReading,
} from '~/core/measures/oral-reading/oral-reading';
import { figure, percent } from '~/core/words/counting';
import { isRunning, secondsOn, started, stopped, stoppedClock, stopwatch } from '../clock';
import { finishedOf } from '../finished';
import { LengthField } from '../length-field';
import { Live, NumberField, needsOf, Pad, type SheetProps, TakeBack, usePads } from '../sheet';
import { useNow } from '../use-now';
import { oralReadingSheetWords } from './words';

/** A timer, a tap for each error, and the words at the end. */
export function OralReadingSheet(props: SheetProps<OralReadingDefinition, OralReadingData>) {
  const { definition, criterion, data, clock, isActive, onMark } = props;
  const now = useNow(isRunning(clock));
  const soFar = data ?? { words: 0, errors: 0, seconds: 0 };
  const toggle = () => {
    if (!isRunning(clock)) return onMark(soFar, started({ ...stoppedClock, before: soFar.seconds }, Date.now()));
    const still = stopped(clock, Date.now());
    onMark({ ...soFar, seconds: Math.max(1, Math.round(still.before)) }, still);
  };
  const miss = (more: number) => onMark({ ...soFar, errors: Math.max(0, soFar.errors + more) });
  usePads(isActive, [toggle, () => miss(1)], () => miss(-1));
  const current = finishedOf(oralReading, props, now);
  const score = current && current.words > 0 && current.seconds > 0 ? scoreOralReading(definition, current) : null;
  const accuracy = current && current.words >= current.errors ? accuracyOf(current) : null;
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <Pad at={0} showsKey={isActive} onPress={toggle} className={isRunning(clock) ? 'support-0' : 'support-3'}>
          <span className="display block text-3xl">
            {stopwatch(isRunning(clock) ? secondsOn(clock, now) : soFar.seconds)}
          </span>
          <span className="text-small font-normal">
            {isRunning(clock) ? oralReadingSheetWords.stopReading : oralReadingSheetWords.startReading}
          </span>
        </Pad>
        <Pad at={1} showsKey={isActive} onPress={() => miss(1)}>
          <span className="display block text-3xl">{soFar.errors}</span>
          <span className="text-small font-normal">{oralReadingSheetWords.oneMoreError}</span>
        </Pad>
      </div>
      <div className="mt-3 flex min-h-11 flex-wrap items-center gap-x-5 gap-y-2">
        {soFar.errors > 0 && <TakeBack showsKey={isActive} onPress={() => miss(-1)} />}
        <NumberField
          label={oralReadingSheetWords.wordsRead}
          value={data ? data.words || null : null}
          onChange={(words) => onMark({ ...soFar, words: words ?? 0 })}
        />
        {!isRunning(clock) && (
          <LengthField
            label={oralReadingSheetWords.time}
            seconds={soFar.seconds || null}
            onChange={(seconds) => onMark({ ...soFar, seconds: seconds ?? 0 }, stoppedClock)}
          />
        )}
        <Live figure={score?.value == null ? null : figure(score.value)}>
          {score?.value != null && oralReadingSheetWords.wordsCorrectPerMinute}
          {accuracy && `${percent(accuracy.accuracy)}, ${bandWords[accuracy.band]} · `}
          {needsOf(definition, criterion)}
        </Live>
      </div>
    </>
  );
}
