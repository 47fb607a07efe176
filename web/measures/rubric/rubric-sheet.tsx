import {
  criterionName,
  type RubricData,
  type RubricDefinition,
  rubric,
  scoreRubric,
} from '~/core/measures/rubric/rubric';
import { Live, needsOf, Pad, type SheetProps, usePads } from '../sheet';

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
  return (
    <>
      {definition.criteria.map(({ key, levels, ...named }) => (
        <fieldset key={key} className="mb-3">
          {definition.criteria.length > 1 && (
            <legend className="mb-1.5 text-small font-semibold">{criterionName(named)}</legend>
          )}
          <div className="grid gap-2 @lg:grid-cols-[repeat(auto-fit,minmax(9rem,1fr))]">
            {levels.map(({ points, words }, i) => (
              <Pad
                key={points}
                at={i}
                showsKey={isActive && next?.key === key}
                isPressed={pointsOf(key) === points}
                onPress={() => rate(key, points)}
                className={`py-2 text-left ${pointsOf(key) === points ? 'support-0' : 'border border-rule'}`}
              >
                <span className="display mr-2 text-xl">{points}</span>
                <span className="text-small font-normal">{words}</span>
              </Pad>
            ))}
          </div>
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
