import {
  scoreTaskAnalysis,
  stepsToTeach,
  type TaskAnalysisData,
  type TaskAnalysisDefinition,
} from '~/core/measures/task-analysis/task-analysis';
import { listed, percent } from '~/core/words/counting';
import { toneOf } from '../../platform/ui/outcome-tones';
import { Live, needsOf, Pad, type SheetProps, TakeBack, TextButton, usePads } from '../sheet';
import { taskAnalysisSheetWords } from './words';

/** Each step with its level; the digits mark the next one that is open. */
export function TaskAnalysisSheet({
  definition,
  criterion,
  data,
  isActive,
  onMark,
}: SheetProps<TaskAnalysisDefinition, TaskAnalysisData>) {
  const outcomeOf = (key: string) => data?.steps.find(({ step }) => step === key)?.outcome ?? null;
  const levels = [
    ...definition.levels.map(({ key, label }) => ({ key, label })),
    { key: 'notDone', label: taskAnalysisSheetWords.notDone },
  ];
  const mark = (step: string, outcome: string | null) => {
    const steps = definition.steps.flatMap(({ key }) => {
      const found = key === step ? outcome : outcomeOf(key);
      return found === null ? [] : [{ step: key, outcome: found }];
    });
    onMark(steps.length === 0 ? null : { steps });
  };
  const next = definition.steps.find(({ key }) => outcomeOf(key) === null);
  const last = definition.steps.findLast(({ key }) => outcomeOf(key) !== null);
  const restNotDone = () =>
    onMark({ steps: definition.steps.map(({ key }) => ({ step: key, outcome: outcomeOf(key) ?? 'notDone' })) });
  const takeBack = () => last && mark(last.key, null);
  usePads(
    isActive,
    levels.map(
      ({ key }) =>
        () =>
          next && mark(next.key, key),
    ),
    takeBack,
  );
  const score = data && scoreTaskAnalysis(definition, data);
  const toTeach = data ? stepsToTeach(definition, data).map(({ label }) => label) : [];
  return (
    <>
      <ol className="grid gap-2">
        {definition.steps.map(({ key, label }, at) => (
          <li key={key}>
            <fieldset className="flex flex-wrap items-center gap-2">
              <legend className="sr-only">{label}</legend>
              <span aria-hidden className="w-full text-small @lg:w-40">
                {at + 1}. {label}
              </span>
              <span className="grid w-full grid-cols-[repeat(auto-fit,minmax(6rem,1fr))] gap-1.5 @lg:w-auto @lg:flex-1">
                {levels.map((level, i) => {
                  const isChosen = outcomeOf(key) === level.key;
                  return (
                    <Pad
                      key={level.key}
                      at={i}
                      showsKey={isActive && next?.key === key}
                      isPressed={isChosen}
                      onPress={() => mark(key, isChosen ? null : level.key)}
                      className={
                        !isChosen
                          ? 'border border-rule text-ink-2'
                          : level.key === 'notDone'
                            ? 'outcome-incorrect'
                            : toneOf(definition, level.key)
                      }
                    >
                      {level.label}
                    </Pad>
                  );
                })}
              </span>
            </fieldset>
          </li>
        ))}
      </ol>
      <div className="mt-3 flex min-h-11 flex-wrap items-center gap-x-5 gap-y-2">
        {data && <TakeBack showsKey={isActive} onPress={takeBack} />}
        {data && next && <TextButton onPress={restNotDone}>{taskAnalysisSheetWords.theRestNotDone}</TextButton>}
        {definition.opportunity === 'single' && (
          <p className="w-full text-small text-ink-2">{taskAnalysisSheetWords.endsWithAnError}</p>
        )}
        {toTeach.length > 0 && (
          <p className="text-small text-ink-2">{taskAnalysisSheetWords.toTeachNext(listed(toTeach))}</p>
        )}
        <Live figure={score?.value == null ? null : percent(score.value)}>{needsOf(definition, criterion)}</Live>
      </div>
    </>
  );
}
