import { useState } from 'react';
import { noScoreReasons, noScoreWords } from '~/core/measures/score';
import type { GoalCondition, IncidentCondition } from '~/core/rules/rule';
import type { OfferedForRules } from '~/server/rules/offered';
import { Labelled, LabelledSelect } from '../platform/ui/labelled';
import { editRuleWords } from './words';

export const asOptions = (names: readonly string[]) => names.map((name) => ({ id: name, name }));

const numberIn = (text: string) => (text === '' ? Number.NaN : Number(text));

/** A number as it is typed; what is none is refused when it is saved. */
export function NumberInput(props: {
  label: string;
  value: number;
  message?: string | undefined;
  onChange: (value: number) => void;
}) {
  const { label, value, message, onChange } = props;
  const [text, setText] = useState('');
  // What is being typed stays as it is typed, for as long as it comes to that number.
  const shown = Object.is(numberIn(text), value) ? text : Number.isFinite(value) ? `${value}` : '';
  return (
    <Labelled label={label} message={message}>
      <input
        type="number"
        step="any"
        inputMode="decimal"
        className="input w-28"
        value={shown}
        onChange={({ target }) => {
          setText(target.value);
          onChange(numberIn(target.value));
        }}
      />
    </Labelled>
  );
}

/** Conditions as they begin; what has to be chosen is blank. */
export const goalConditions: { [K in GoalCondition['is']]: Extract<GoalCondition, { is: K }> } = {
  figure: { is: 'figure', comparison: 'below', value: 50 },
  level: { is: 'level', level: '' },
  item: { is: 'item', item: '' },
  partial: { is: 'partial' },
  noScore: { is: 'noScore', reason: 'refused' },
  selfRating: { is: 'selfRating', lowest: 1 },
  goal: { is: 'goal', goalId: '' },
  area: { is: 'area', area: '' },
};
export const incidentConditions: { [K in IncidentCondition['is']]: Extract<IncidentCondition, { is: K }> } = {
  behavior: { is: 'behavior', name: '' },
  antecedent: { is: 'antecedent', name: '' },
  location: { is: 'location', name: '' },
  intensity: { is: 'intensity', step: 3 },
  lasted: { is: 'lasted', minutes: 10 },
  unresolved: { is: 'unresolved' },
};

interface FieldsProps<C> {
  condition: C;
  offered: OfferedForRules;
  /** Of the one goal that is named, where there is one. */
  unit: string;
  message?: string | undefined;
  onChange: (condition: C) => void;
}

/** A choice among names that are there; one that is not there any more stays to be seen. */
function NameSelect(props: {
  label: string;
  names: readonly string[];
  value: string;
  message?: string | undefined;
  onChange: (name: string) => void;
}) {
  const { label, names, value, message, onChange } = props;
  const all = value === '' || names.includes(value) ? names : [value, ...names];
  return (
    <LabelledSelect
      label={label}
      value={value}
      none={editRuleWords.choose}
      options={asOptions(all)}
      message={message}
      onChange={(name) => onChange(name ?? '')}
    />
  );
}

/** What one condition about a goal's entry asks for. */
export function GoalConditionFields({ condition, offered, unit, message, onChange }: FieldsProps<GoalCondition>) {
  switch (condition.is) {
    case 'figure':
      return (
        <>
          <LabelledSelect
            label={editRuleWords.comparison}
            value={condition.comparison}
            options={[
              { id: 'below', name: editRuleWords.below },
              { id: 'atLeast', name: editRuleWords.atLeast },
            ]}
            onChange={(id) => onChange({ ...condition, comparison: id === 'atLeast' ? 'atLeast' : 'below' })}
          />
          <NumberInput
            label={editRuleWords.value(unit)}
            value={condition.value}
            message={message}
            onChange={(value) => onChange({ ...condition, value })}
          />
          <p className="basis-full text-small text-ink-2">{editRuleWords.figureAbout}</p>
        </>
      );
    case 'level':
      return (
        <NameSelect
          label={editRuleWords.supportLevel}
          names={offered.levels}
          value={condition.level}
          message={message}
          onChange={(level) => onChange({ ...condition, level })}
        />
      );
    case 'item':
      return (
        <NameSelect
          label={editRuleWords.item}
          names={offered.items}
          value={condition.item}
          message={message}
          onChange={(item) => onChange({ ...condition, item })}
        />
      );
    case 'area':
      return (
        <NameSelect
          label={editRuleWords.area}
          names={offered.areas}
          value={condition.area}
          message={message}
          onChange={(area) => onChange({ ...condition, area })}
        />
      );
    case 'goal':
      return (
        <LabelledSelect
          label={editRuleWords.goal}
          value={condition.goalId}
          none={editRuleWords.choose}
          options={offered.goals}
          message={message}
          onChange={(goalId) => onChange({ ...condition, goalId: goalId ?? '' })}
        />
      );
    case 'noScore':
      return (
        <LabelledSelect
          label={editRuleWords.reason}
          value={condition.reason}
          options={noScoreReasons.map((id) => ({ id, name: noScoreWords[id].label }))}
          onChange={(id) => onChange({ ...condition, reason: noScoreReasons.find((one) => one === id) ?? 'refused' })}
        />
      );
    case 'selfRating':
      return (
        <NumberInput
          label={editRuleWords.lowest}
          value={condition.lowest}
          message={message}
          onChange={(lowest) => onChange({ ...condition, lowest })}
        />
      );
    case 'partial':
      return null;
  }
}

/** What one condition about an incident asks for. */
export function IncidentConditionFields({ condition, offered, message, onChange }: FieldsProps<IncidentCondition>) {
  switch (condition.is) {
    case 'behavior':
    case 'antecedent':
    case 'location': {
      const names = {
        behavior: offered.behaviors,
        antecedent: offered.antecedents,
        location: offered.locations,
      }[condition.is];
      return (
        <NameSelect
          label={editRuleWords[condition.is]}
          names={names}
          value={condition.name}
          message={message}
          onChange={(name) => onChange({ ...condition, name })}
        />
      );
    }
    case 'intensity':
      return (
        <NumberInput
          label={editRuleWords.step}
          value={condition.step}
          message={message}
          onChange={(step) => onChange({ ...condition, step })}
        />
      );
    case 'lasted':
      return (
        <NumberInput
          label={editRuleWords.minutes}
          value={condition.minutes}
          message={message}
          onChange={(minutes) => onChange({ ...condition, minutes })}
        />
      );
    case 'unresolved':
      return null;
  }
}
