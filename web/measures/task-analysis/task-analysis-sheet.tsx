import {
  openSteps,
  scoreTaskAnalysis,
  stepsToTeach,
  type TaskAnalysisData,
  type TaskAnalysisDefinition,
} from '~/core/measures/task-analysis/task-analysis';
import { listed, percent } from '~/core/words/counting';
import { toneOf } from '../../platform/ui/outcome-tones';
import { LevelGrid } from '../level-grid';
import { Live, needsOf, type SheetProps, StillOpen, TakeBack, TextButton, usePads } from '../sheet';
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
      <LevelGrid
        parts={definition.steps}
        isNumbered
        outcomes={levels}
        outcomeOf={outcomeOf}
        toneOf={(outcome) => (outcome === 'notDone' ? 'outcome-incorrect' : toneOf(definition, outcome))}
        next={isActive ? (next?.key ?? null) : null}
        onMark={mark}
      />
      <div className="mt-3 flex min-h-11 flex-wrap items-center gap-x-5 gap-y-2">
        {data && <TakeBack showsKey={isActive} onPress={takeBack} />}
        {data && next && <TextButton onPress={restNotDone}>{taskAnalysisSheetWords.theRestNotDone}</TextButton>}
        {data && <StillOpen names={openSteps(definition, data)} />}
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
