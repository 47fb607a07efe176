import { useState } from 'react';
import {
  type CumulativeTotalData,
  type CumulativeTotalDefinition,
  quickAmounts,
} from '~/core/measures/cumulative-total/cumulative-total';
import { figure, percent } from '~/core/words/counting';
import { Live, NumberField, Pad, type SheetProps, TakeOut, usePads } from '../sheet';
import { cumulativeTotalSheetWords } from './words';

/** How much this time, and of what; the sum so far stands beside it. */
export function CumulativeTotalSheet(props: SheetProps<CumulativeTotalDefinition, CumulativeTotalData>) {
  const { definition, data, isActive, soFar, pace, onMark } = props;
  const { unit, total, categories } = definition;
  const quick = quickAmounts(definition);
  const amounts = data?.amounts ?? [];
  const [category, setCategory] = useState<string | null>(categories[0]?.key ?? null);
  const add = (amount: number) => onMark({ amounts: [...amounts, { amount, category }] });
  const change = (at: number, changes: Partial<CumulativeTotalData['amounts'][number]>) =>
    onMark({ amounts: amounts.map((amount, i) => (i === at ? { ...amount, ...changes } : amount)) });
  const takeOut = (at: number) => onMark(amounts.length === 1 ? null : { amounts: amounts.toSpliced(at, 1) });
  usePads(
    isActive,
    quick.map((amount) => () => add(amount)),
    () => amounts.length > 0 && takeOut(amounts.length - 1),
  );
  const sum = amounts.reduce((all, { amount }) => all + amount, 0);
  const before = ((soFar ?? 0) * total) / 100;
  return (
    <>
      {categories.length > 0 && (
        <fieldset className="mb-2 flex flex-wrap gap-1.5 text-small">
          <legend className="sr-only">{cumulativeTotalSheetWords.whatWasIt}</legend>
          {categories.map(({ key, label }) => (
            <button
              key={key}
              type="button"
              aria-pressed={category === key}
              onClick={() => setCategory(key)}
              className={`tap rounded-full border px-3 ${category === key ? 'border-ink bg-wash font-semibold' : 'border-rule text-ink-2'}`}
            >
              {label}
            </button>
          ))}
        </fieldset>
      )}
      <div className="grid grid-cols-3 gap-2">
        {quick.map((amount, i) => (
          <Pad key={amount} at={i} showsKey={isActive} onPress={() => add(amount)} className="support-3">
            {amount < 0 ? '−' : '+'} {Math.abs(amount)} {Math.abs(amount) === 1 ? unit.one : unit.many}
          </Pad>
        ))}
      </div>
      <div className="mt-3 flex min-h-11 flex-wrap items-center gap-x-5 gap-y-2">
        {amounts.map(({ amount, category: key, title }, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: an amount is its place
          <span key={`${at} of ${amounts.length}`} className="flex flex-wrap items-center gap-1">
            <NumberField
              label={categories.find((one) => one.key === key)?.label ?? `${at + 1}.`}
              unit={unit.many}
              step="any"
              least={definition.amounts === 'balance' ? null : 0}
              value={amount}
              onChange={(value) => change(at, { amount: value ?? 0 })}
            />
            <input
              aria-label={cumulativeTotalSheetWords.title(at + 1)}
              placeholder={cumulativeTotalSheetWords.titleShort}
              maxLength={80}
              value={title ?? ''}
              onChange={(event) => change(at, { title: event.target.value || undefined })}
              className="input w-40"
            />
            <TakeOut what={cumulativeTotalSheetWords.amount(at + 1)} onPress={() => takeOut(at)} />
          </span>
        ))}
        <NewAmount unit={unit.many} onAdd={add} isBalance={definition.amounts === 'balance'} />
        <Live figure={percent((100 * (before + sum)) / total)}>
          {figure(before + sum)}
          {cumulativeTotalSheetWords.of}
          {figure(total)} {unit.many}
          {pace && <span className="block text-ink-2">{pace}</span>}
        </Live>
      </div>
    </>
  );
}

/** Another amount, typed: it is taken with Enter, or when the field is left. */
function NewAmount({ unit, isBalance, onAdd }: { unit: string; isBalance: boolean; onAdd: (amount: number) => void }) {
  const [amount, setAmount] = useState<number | null>(null);
  const take = () => {
    if (amount !== null) onAdd(amount);
    setAmount(null);
  };
  return (
    <NumberField
      label={cumulativeTotalSheetWords.another}
      unit={unit}
      step="any"
      least={isBalance ? null : 0}
      value={amount}
      onChange={setAmount}
      onTaken={take}
    />
  );
}
