import { type ItemCheckData, type ItemCheckDefinition, scoreItemCheck } from '~/core/measures/item-check/item-check';
import { outcomesOf } from '~/core/measures/support-levels';
import { percent } from '~/core/words/counting';
import { toneOf } from '../../platform/ui/outcome-tones';
import { Live, needsOf, Pad, type SheetProps, TextButton, usePads } from '../sheet';
import { itemCheckSheetWords } from './words';

/** The outcome after the next tap: through the goal's levels, then what is no success, then blank again. */
export function nextOutcome(definition: ItemCheckDefinition, outcome: string | null): string | null {
  const all = outcomesOf(definition).map(({ key }) => key);
  return all[outcome === null ? 0 : all.indexOf(outcome) + 1] ?? null;
}

/** An item's outcome set, or taken out where it is blank again; the goal's order is kept. */
export function withItem(
  definition: ItemCheckDefinition,
  data: ItemCheckData | null,
  item: string,
  outcome: string | null,
) {
  const outcomes = new Map(data?.items.map((one) => [one.item, one.outcome]));
  if (outcome === null) outcomes.delete(item);
  else outcomes.set(item, outcome);
  const items = definition.items.flatMap(({ key }) => {
    const found = outcomes.get(key);
    return found === undefined ? [] : [{ item: key, outcome: found }];
  });
  return items.length === 0 ? null : { items };
}

/** Everything that was not marked yet marked as incorrect: what is left alone stays not asked. */
export function restIncorrect(definition: ItemCheckDefinition, data: ItemCheckData): ItemCheckData {
  const outcomes = new Map(data.items.map(({ item, outcome }) => [item, outcome]));
  return { items: definition.items.map(({ key }) => ({ item: key, outcome: outcomes.get(key) ?? 'incorrect' })) };
}

/** Each item is a chip; a tap takes it one outcome on. What is not tapped was not asked. */
export function ItemCheckSheet({
  definition,
  criterion,
  data,
  isActive,
  onMark,
}: SheetProps<ItemCheckDefinition, ItemCheckData>) {
  const outcomeOf = (key: string) => data?.items.find(({ item }) => item === key)?.outcome ?? null;
  const press = (key: string) => onMark(withItem(definition, data, key, nextOutcome(definition, outcomeOf(key))));
  usePads(
    isActive,
    definition.items.map(
      ({ key }) =>
        () =>
          press(key),
    ),
  );
  const labels = new Map(outcomesOf(definition).map(({ key, label }) => [key, label]));
  const score = data && scoreItemCheck(definition, data);
  return (
    <>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(6.5rem,1fr))] gap-2">
        {definition.items.map(({ key, label }, i) => {
          const outcome = outcomeOf(key);
          const words = outcome === null ? itemCheckSheetWords.notAsked : labels.get(outcome);
          return (
            <Pad
              key={key}
              at={i < 11 ? i : null}
              showsKey={isActive}
              onPress={() => press(key)}
              className={outcome === null ? 'border border-dashed border-ink-3/60' : toneOf(definition, outcome)}
            >
              <span className="block">{label}</span>
              <span className="block text-xs font-normal">{words}</span>
            </Pad>
          );
        })}
      </div>
      <div className="mt-3 flex min-h-11 flex-wrap items-center gap-x-4">
        {data && data.items.length < definition.items.length && (
          <TextButton onPress={() => onMark(restIncorrect(definition, data))}>
            {itemCheckSheetWords.theRestIncorrect}
          </TextButton>
        )}
        {data && <TextButton onPress={() => onMark(null)}>{itemCheckSheetWords.clearAll}</TextButton>}
        <Live figure={score?.value == null ? null : percent(score.value)}>
          {score?.value != null && itemCheckSheetWords.of(score.amount, score.weight)}
          {needsOf(definition, criterion)}
        </Live>
      </div>
    </>
  );
}
