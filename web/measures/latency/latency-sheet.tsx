import { type LatencyData, type LatencyDefinition, scoreLatency } from '~/core/measures/latency/latency';
import { lengthOfTime } from '~/core/words/counting';
import { isRunning, secondsOn, started, stoppedClock, stopwatch } from '../clock';
import { LengthField } from '../length-field';
import { Live, needsOf, Pad, type SheetProps, TakeOut, usePads } from '../sheet';
import { useNow } from '../use-now';
import { latencySheetWords } from './words';

/** The cue starts the clock, the response stops it; or none came. */
export function LatencySheet(props: SheetProps<LatencyDefinition, LatencyData>) {
  const { definition, criterion, data, clock, isActive, onMark } = props;
  const now = useNow(isRunning(clock));
  const responses = data?.responses ?? [];
  const { one } = definition.cue;
  const give = () => onMark(data, started(stoppedClock, Date.now()));
  const end = (response: number | null) => onMark({ responses: [...responses, response] }, stoppedClock);
  const answer = () => end(Math.round(10 * secondsOn(clock, Date.now())) / 10);
  const change = (at: number, response: number | null) => onMark({ responses: responses.with(at, response) });
  const takeOut = (at: number) => onMark(responses.length === 1 ? null : { responses: responses.toSpliced(at, 1) });
  usePads(isActive, isRunning(clock) ? [answer, () => end(null)] : [give]);
  const score = data && scoreLatency(definition, data);
  return (
    <>
      <div className="flex flex-wrap gap-3">
        {isRunning(clock) ? (
          <>
            <Pad at={0} showsKey={isActive} onPress={answer} className="min-w-40 flex-1 support-0">
              <span className="display block text-3xl">{stopwatch(secondsOn(clock, now))}</span>
              <span className="text-small font-normal">{latencySheetWords.theResponseCame}</span>
            </Pad>
            <Pad at={1} showsKey={isActive} onPress={() => end(null)} className="outcome-noResponse">
              {latencySheetWords.noResponse}
            </Pad>
          </>
        ) : (
          <Pad at={0} showsKey={isActive} onPress={give} className="min-w-48 flex-1 support-3">
            {latencySheetWords.giveThe(one)}
          </Pad>
        )}
      </div>
      <div className="mt-3 flex min-h-11 flex-wrap items-center gap-x-5 gap-y-2">
        {responses.map((response, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a response is its place
          <span key={`${at} of ${responses.length}`} className="flex items-center gap-1">
            {response === null ? (
              <span className="text-small text-ink-2">{latencySheetWords.noResponseAt(at + 1)}</span>
            ) : (
              <LengthField label={`${at + 1}.`} seconds={response} onChange={(value) => value && change(at, value)} />
            )}
            <TakeOut what={`${one} ${at + 1}`} onPress={() => takeOut(at)} />
          </span>
        ))}
        <Live figure={score?.value == null ? null : lengthOfTime(score.value)}>
          {score?.value != null && 'median · '}
          {needsOf(definition, criterion)}
        </Live>
      </div>
    </>
  );
}
