import {
  type ItemCheckData,
  type ItemCheckDefinition,
  openItems,
  scoreItemCheck,
} from '~/core/measures/item-check/item-check';
import { outcomesOf } from '~/core/measures/support-levels';
import { percent } from '~/core/words/counting';
import { toneOf } from '../../platform/ui/outcome-tones';
import { LevelGrid } from '../level-grid';
import { Live, needsOf, type SheetProps, StillOpen, TakeBack, TextButton, usePads } from '../sheet';
import { itemCheckSheetWords } from './words';

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

/** Each item with its outcomes, one tap each; the digits mark the next one that is open. What is not tapped was not asked. */
export function ItemCheckSheet({
  definition,
  criterion,
  data,
  isActive,
  onMark,
}: SheetProps<ItemCheckDefinition, ItemCheckData>) {
  const outcomeOf = (key: string) => data?.items.find(({ item }) => item === key)?.outcome ?? null;
  const outcomes = outcomesOf(definition);
  const mark = (item: string, outcome: string | null) => onMark(withItem(definition, data, item, outcome));
  const next = definition.items.find(({ key }) => outcomeOf(key) === null);
  const last = definition.items.findLast(({ key }) => outcomeOf(key) !== null);
  const takeBack = () => last && mark(last.key, null);
  usePads(
    isActive,
    outcomes.map(
      ({ key }) =>
        () =>
          next && mark(next.key, key),
    ),
    takeBack,
  );
  const score = data && scoreItemCheck(definition, data);
  return (
    <>
      <LevelGrid
        parts={definition.items}
        outcomes={outcomes}
        outcomeOf={outcomeOf}
        toneOf={(outcome) => toneOf(definition, outcome)}
        next={isActive ? (next?.key ?? null) : null}
        onMark={mark}
      />
      <div className="mt-3 flex min-h-11 flex-wrap items-center gap-x-4">
        {data && <TakeBack showsKey={isActive} onPress={takeBack} />}
        {data && next && (
          <TextButton onPress={() => onMark(restIncorrect(definition, data))}>
            {itemCheckSheetWords.theRestIncorrect}
          </TextButton>
        )}
        {data && <TextButton onPress={() => onMark(null)}>{itemCheckSheetWords.clearAll}</TextButton>}
        {data && <StillOpen names={openItems(definition, data)} />}
        <Live figure={score?.value == null ? null : percent(score.value)}>
          {score?.value != null && itemCheckSheetWords.of(score.amount, score.weight)}
          {needsOf(definition, criterion)}
        </Live>
      </div>
    </>
  );
}
