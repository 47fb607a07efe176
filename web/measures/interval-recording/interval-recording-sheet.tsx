import { useEffect, useRef, useState } from 'react';
import {
  endedIntervals,
  type IntervalRecordingData,
  type IntervalRecordingDefinition,
  intervalRecording,
  methodWords,
  scoreIntervalRecording,
  withMissed,
} from '~/core/measures/interval-recording/interval-recording';
import { percent } from '~/core/words/counting';
import { isRunning, secondsOn, started, stopped, stoppedClock } from '../clock';
import { finishedOf } from '../finished';
import { Live, needsOf, Pad, type SheetProps, TextButton, usePads } from '../sheet';
import { useNow } from '../use-now';
import { intervalRecordingSheetWords } from './words';

const RADIUS = 40;
const ROUND = 2 * Math.PI * RADIUS;

const question: Record<IntervalRecordingDefinition['method'], string> = {
  whole: intervalRecordingSheetWords.wasItThereTheWhole,
  partial: intervalRecordingSheetWords.wasItThereAtAny,
  momentary: intervalRecordingSheetWords.wasItThereJustNow,
};

/** A soft tone and a short buzz, where the device has them. */
function nudge() {
  navigator.vibrate?.(80);
  const context = new AudioContext();
  const tone = context.createOscillator();
  const loudness = context.createGain();
  loudness.gain.setValueAtTime(0.06, context.currentTime);
  loudness.gain.exponentialRampToValueAtTime(0.001, context.currentTime + 0.25);
  tone.frequency.value = 520;
  tone.connect(loudness).connect(context.destination);
  tone.start();
  tone.stop(context.currentTime + 0.25);
  tone.onended = () => void context.close();
}

/** A ring that runs from interval to interval and asks at the end of each; one that nobody answers is missed, not a no. */
export function IntervalRecordingSheet(props: SheetProps<IntervalRecordingDefinition, IntervalRecordingData>) {
  const { definition, criterion, data, clock, isActive, onMark } = props;
  const now = useNow(isRunning(clock));
  const [isLoud, setLoud] = useState(false);
  const seconds = secondsOn(clock, now);
  const ended = endedIntervals(definition, seconds);
  const intervals = data?.intervals ?? [];
  const asked = ended - 1;
  const isOver = definition.planned !== null && ended >= definition.planned;
  const answer = (is: boolean) => {
    if (asked < 0) return;
    onMark({ intervals: withMissed({ intervals }, ended).with(asked, is) });
  };
  const toggle = () => {
    if (!isRunning(clock)) return onMark(data ?? { intervals: [] }, started(stoppedClock, Date.now()));
    const still = stopped(clock, Date.now());
    const all = withMissed({ intervals }, endedIntervals(definition, still.before));
    onMark(all.some((one) => one !== null) ? { intervals: all } : null, still);
  };
  usePads(isActive, isRunning(clock) ? [() => answer(true), () => answer(false), toggle] : [toggle]);
  const before = useRef(0);
  useEffect(() => {
    if (isLoud && isRunning(clock) && ended > before.current) nudge();
    before.current = ended;
  }, [ended, isLoud, clock]);
  const current = finishedOf(intervalRecording, props, now);
  const score = current && scoreIntervalRecording(definition, current);
  const share = isOver ? 1 : (seconds % definition.seconds) / definition.seconds;
  return (
    <>
      <div className="flex flex-wrap items-center gap-4">
        <svg
          viewBox="0 0 96 96"
          className="size-24 shrink-0"
          role="img"
          aria-label={intervalRecordingSheetWords.intervalsHaveEnded(ended)}
        >
          <circle cx="48" cy="48" r={RADIUS} fill="none" strokeWidth="7" className="stroke-rule" />
          <circle
            cx="48"
            cy="48"
            r={RADIUS}
            fill="none"
            strokeWidth="7"
            strokeDasharray={`${ROUND * (isRunning(clock) ? share : 0)} ${ROUND}`}
            transform="rotate(-90 48 48)"
            className="stroke-fern"
          />
          <text x="48" y="55" textAnchor="middle" className="display fill-ink text-2xl">
            {ended}
            {definition.planned !== null && `/${definition.planned}`}
          </text>
        </svg>
        {isRunning(clock) ? (
          <div className="grid flex-1 grid-cols-2 gap-2">
            <p role="status" className="col-span-2 text-small text-ink-2">
              {asked < 0
                ? intervalRecordingSheetWords.watchTheFirstQuestionComes(definition.seconds)
                : intervalRecordingSheetWords.interval(asked + 1, question[definition.method])}
            </p>
            <Pad
              at={0}
              showsKey={isActive}
              isPressed={asked >= 0 && intervals[asked] === true}
              isOff={asked < 0}
              onPress={() => answer(true)}
              className={intervals[asked] === true ? 'support-0' : 'support-3'}
            >
              {intervalRecordingSheetWords.yes}
            </Pad>
            <Pad
              at={1}
              showsKey={isActive}
              isPressed={asked >= 0 && intervals[asked] === false}
              isOff={asked < 0}
              onPress={() => answer(false)}
              className={intervals[asked] === false ? 'border-2 border-ink' : 'outcome-incorrect'}
            >
              {intervalRecordingSheetWords.no}
            </Pad>
          </div>
        ) : (
          <Pad at={0} showsKey={isActive} onPress={toggle} className="min-w-40 flex-1 support-3">
            {data
              ? intervalRecordingSheetWords.startAgainFromTheBeginning
              : intervalRecordingSheetWords.startEverySeconds(definition.seconds)}
          </Pad>
        )}
      </div>
      <div className="mt-3 flex min-h-11 flex-wrap items-center gap-x-5 gap-y-2 text-small text-ink-2">
        {isRunning(clock) && (
          <TextButton onPress={toggle}>
            {isOver ? intervalRecordingSheetWords.finish : intervalRecordingSheetWords.stopHere}
          </TextButton>
        )}
        <label className="flex tap items-center gap-2">
          <input type="checkbox" className="checkbox" checked={isLoud} onChange={() => setLoud(!isLoud)} />
          {intervalRecordingSheetWords.softToneAndBuzz}
        </label>
        {current && (
          <span>{intervalRecordingSheetWords.missed(current.intervals.filter((one) => one === null).length)}</span>
        )}
        <Live figure={score?.value == null ? null : percent(score.value)}>
          {methodWords[definition.method].label} · {needsOf(definition, criterion)}
        </Live>
      </div>
    </>
  );
}
