import {
  criterionName,
  type RubricData,
  type RubricDefinition,
  rubric,
  scoreRubric,
} from '~/core/measures/rubric/rubric';
import { Live, needsOf, Pad, type SheetProps, usePads } from '../sheet';
import { rubricSheetWords } from './words';

/** Where it is narrow, a criterion is one row of points, and the words of what is chosen stand below it. */
const oneRow = 'grid-cols-[repeat(auto-fit,minmax(2.75rem,1fr))]';

/** The criteria with their levels as cards, each with its words. A second tap takes a rating back. */
export function RubricSheet({
  definition,
  criterion,
  data,
  isActive,
  onMark,
}: SheetProps<RubricDefinition, RubricData>) {
  const ratings = data?.ratings ?? [];
  const pointsOf = (key: string) => ratings.find((rating) => rating.criterion === key)?.points ?? null;
  const rate = (key: string, points: number) => {
    const others = ratings.filter((rating) => rating.criterion !== key);
    const all = pointsOf(key) === points ? others : [...others, { criterion: key, points, rater: null }];
    onMark(all.length === 0 ? null : { ...data, ratings: all });
  };
  // The digits rate the first criterion that is not rated yet, or the only one there is.
  const next = definition.criteria.find(({ key }) => pointsOf(key) === null) ?? definition.criteria[0];
  usePads(
    isActive,
    (next?.levels ?? []).map(
      ({ points }) =>
        () =>
          next && rate(next.key, points),
    ),
  );
  const score = data && scoreRubric(definition, data);
  const isOnly = definition.criteria.length === 1;
  return (
    <>
      {definition.criteria.map(({ key, levels, ...named }) => (
        <fieldset key={key} className="mb-3">
          {definition.criteria.length > 1 && (
            <legend className="mb-1.5 text-small font-semibold">{criterionName(named)}</legend>
          )}
          <div className={`grid gap-2 ${isOnly ? '' : oneRow} @lg:grid-cols-[repeat(auto-fit,minmax(9rem,1fr))]`}>
            {levels.map(({ points, words }, i) => (
              <Pad
                key={points}
                at={i}
                showsKey={isActive && next?.key === key}
                isPressed={pointsOf(key) === points}
                onPress={() => rate(key, points)}
                className={`py-2 @lg:text-left ${isOnly ? 'text-left' : 'text-center'} ${pointsOf(key) === points ? 'support-0' : 'border border-rule'}`}
              >
                <span className={`display text-xl @lg:mr-2 ${isOnly ? 'mr-2' : ''}`}>{points}</span>
                <span className={`text-small font-normal ${isOnly ? '' : 'sr-only @lg:not-sr-only'}`}>{words}</span>
              </Pad>
            ))}
          </div>
          {!isOnly && (
            <p className="mt-1 text-small text-ink-2 @lg:hidden">
              {levels.find(({ points }) => points === pointsOf(key))?.words ?? rubricSheetWords.from(levels)}
            </p>
          )}
        </fieldset>
      ))}
      <div className="flex tap items-center">
        <Live figure={score?.value == null ? null : rubric.said(definition, score.value)}>
          {needsOf(definition, criterion)}
        </Live>
      </div>
    </>
  );
}
