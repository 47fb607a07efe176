import { Plus, X } from 'lucide-react';
import { defined } from '~/core/defined';
import { decisionWords } from '~/core/progress/decision-words';
import {
  type GoalCondition,
  type IncidentCondition,
  oftenOf,
  type RuleTrigger,
  type RuleWhen,
  ruledDecisions,
  ruleTriggers,
} from '~/core/rules/rule';
import type { OfferedForRules } from '~/server/rules/offered';
import { FieldMessage } from '../platform/ui/fields';
import { IconButton } from '../platform/ui/icon-button';
import { LabelledSelect } from '../platform/ui/labelled';
import {
  asOptions,
  GoalConditionFields,
  goalConditions,
  IncidentConditionFields,
  incidentConditions,
  NumberInput,
} from './condition-fields';
import { editRuleWords } from './words';

type Messages = Record<string, string>;

/** What each trigger begins with. */
const beginnings: { [T in RuleTrigger]: Extract<RuleWhen, { trigger: T }> } = {
  goalEntry: { trigger: 'goalEntry', fulfils: 'all', conditions: [goalConditions.figure] },
  incident: { trigger: 'incident', fulfils: 'all', conditions: [incidentConditions.behavior] },
  often: { trigger: 'often', of: 'incidents', behavior: null, times: 4, days: 5 },
  answer: { trigger: 'answer' },
  stuck: { trigger: 'stuck' },
  quiet: { trigger: 'quiet', days: 10 },
  decision: { trigger: 'decision', decisions: ['below'] },
};

interface WhenProps<W extends RuleWhen = RuleWhen> {
  when: W;
  offered: OfferedForRules;
  messages: Messages;
  onChange: (when: RuleWhen) => void;
}

/** When a rule does something: what happens, and what of it. */
export function WhenFields(props: WhenProps) {
  const { when, onChange } = props;
  return (
    <fieldset className="grid gap-4">
      <legend className="mb-2 text-lg">{editRuleWords.when}</legend>
      <div className="max-w-md">
        <LabelledSelect
          label={editRuleWords.trigger}
          value={when.trigger}
          options={ruleTriggers.map((id) => ({ id, name: editRuleWords.triggers[id] }))}
          onChange={(id) => {
            const trigger = ruleTriggers.find((one) => one === id) ?? 'goalEntry';
            onChange(beginnings[trigger]);
          }}
        />
      </div>
      <Details {...props} />
    </fieldset>
  );
}

function Details({ when, offered, messages, onChange }: WhenProps) {
  const at = (field: string) => messages[`rule.when.${field}`];
  switch (when.trigger) {
    case 'goalEntry': {
      const named = when.conditions.flatMap((one) => (one.is === 'goal' ? [one.goalId] : []));
      const unit = offered.goals.find(({ id }) => id === named[0])?.unit ?? '%';
      return (
        <Conditions<GoalCondition>
          {...when}
          messages={messages}
          kinds={goalConditions}
          words={editRuleWords.goalConditions}
          fields={(condition, message, change) => (
            <GoalConditionFields {...{ condition, offered, unit, message }} onChange={change} />
          )}
          onChange={(changes) => onChange({ ...when, ...changes })}
        />
      );
    }
    case 'incident':
      return (
        <Conditions<IncidentCondition>
          {...when}
          messages={messages}
          kinds={incidentConditions}
          words={editRuleWords.incidentConditions}
          fields={(condition, message, change) => (
            <IncidentConditionFields {...{ condition, offered, unit: '', message }} onChange={change} />
          )}
          onChange={(changes) => onChange({ ...when, ...changes })}
        />
      );
    case 'often':
      return (
        <div className="flex flex-wrap gap-4">
          <LabelledSelect
            label={editRuleWords.whatIsCounted}
            value={when.of}
            options={oftenOf.map((id) => ({ id, name: editRuleWords.oftenOf[id] }))}
            onChange={(id) => onChange({ ...when, of: oftenOf.find((one) => one === id) ?? 'incidents' })}
          />
          <LabelledSelect
            label={editRuleWords.behavior}
            value={when.behavior}
            none={editRuleWords.anyBehavior}
            options={asOptions(offered.behaviors)}
            message={at('behavior')}
            onChange={(behavior) => onChange({ ...when, behavior })}
          />
          <NumberInput
            label={editRuleWords.times}
            value={when.times}
            message={at('times')}
            onChange={(times) => onChange({ ...when, times })}
          />
          <NumberInput
            label={editRuleWords.inDays}
            value={when.days}
            message={at('days')}
            onChange={(days) => onChange({ ...when, days })}
          />
        </div>
      );
    case 'quiet':
      return (
        <NumberInput
          label={editRuleWords.quietDays}
          value={when.days}
          message={at('days')}
          onChange={(days) => onChange({ ...when, days })}
        />
      );
    case 'decision':
      return (
        <fieldset className="grid gap-1.5">
          <legend className="text-small font-semibold">{editRuleWords.decisions}</legend>
          {ruledDecisions.map((is) => (
            <label key={is} className="tap flex items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={when.decisions.includes(is)}
                onChange={({ target }) =>
                  onChange({
                    ...when,
                    decisions: target.checked ? [...when.decisions, is] : when.decisions.filter((one) => one !== is),
                  })
                }
              />
              {decisionWords[is].label}
            </label>
          ))}
          <FieldMessage messages={at('decisions') ? [defined(at('decisions'))] : undefined} />
        </fieldset>
      );
    default:
      return null;
  }
}

interface ConditionsProps<C extends { is: string }> {
  fulfils: 'all' | 'any';
  conditions: readonly C[];
  messages: Messages;
  /** Each kind of condition as it begins. */
  kinds: { [K in C['is']]: C };
  words: { [K in C['is']]: string };
  fields: (condition: C, message: string | undefined, change: (condition: C) => void) => React.ReactNode;
  onChange: (changes: { fulfils?: 'all' | 'any'; conditions?: C[] }) => void;
}

/** Several conditions, of which all or any must be fulfilled. */
function Conditions<C extends { is: string }>(props: ConditionsProps<C>) {
  const { fulfils, conditions, messages, kinds, words, fields, onChange } = props;
  const options = Object.entries(words).map(([id, name]) => ({ id, name: name as string }));
  const replaced = (at: number, condition: C) => conditions.map((one, i) => (i === at ? condition : one));
  const messageAt = (at: number) =>
    Object.entries(messages).find(([field]) => field.startsWith(`rule.when.conditions.${at}.`))?.[1];
  const whole = messages['rule.when.conditions'];
  return (
    <>
      {conditions.length > 1 && (
        <div className="max-w-xs">
          <LabelledSelect
            label={editRuleWords.fulfils}
            value={fulfils}
            options={[
              { id: 'all', name: editRuleWords.all },
              { id: 'any', name: editRuleWords.any },
            ]}
            onChange={(id) => onChange({ fulfils: id === 'any' ? 'any' : 'all' })}
          />
        </div>
      )}
      <ol className="grid gap-3">
        {conditions.map((condition, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a condition is its place
          <li key={`${i} ${condition.is}`} className="flex flex-wrap items-start gap-3 border-l-2 border-rule pl-3">
            <fieldset className="flex min-w-0 flex-1 flex-wrap gap-3">
              <legend className="sr-only">{editRuleWords.conditionNamed(i + 1)}</legend>
              <LabelledSelect
                label={editRuleWords.condition}
                value={condition.is}
                options={options}
                onChange={(id) => {
                  const next = (kinds as Record<string, C>)[id ?? ''];
                  if (next) onChange({ conditions: replaced(i, next) });
                }}
              />
              {fields(condition, messageAt(i), (next) => onChange({ conditions: replaced(i, next) }))}
            </fieldset>
            <IconButton
              label={editRuleWords.removeNamed(i + 1)}
              onPress={() => onChange({ conditions: conditions.filter((_, at) => at !== i) })}
            >
              <X size={16} aria-hidden />
            </IconButton>
          </li>
        ))}
      </ol>
      <FieldMessage messages={whole ? [whole] : undefined} />
      <button
        type="button"
        className="btn btn-sm justify-self-start"
        onClick={() => {
          const [first] = Object.values(kinds) as C[];
          if (first) onChange({ conditions: [...conditions, first] });
        }}
      >
        <Plus size={16} aria-hidden />
        {editRuleWords.addCondition}
      </button>
    </>
  );
}
