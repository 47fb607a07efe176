import type { ReactNode } from 'react';
import { type ForWhom, isOfEntries, markLooks, type Rule, type RuleDoes } from '~/core/rules/rule';
import { lookWords } from '~/core/rules/rule-sentence';
import type { OfferedForRules } from '~/server/rules/offered';
import { EntryMarks } from '../platform/ui/entry-marks';
import { FieldMessage } from '../platform/ui/fields';
import { LabelledInput, LabelledSelect } from '../platform/ui/labelled';
import { NumberInput } from './condition-fields';
import { editRuleWords } from './words';

interface DoesProps {
  rule: Rule;
  offered: OfferedForRules;
  messages: Record<string, string>;
  onChange: (does: RuleDoes) => void;
}

/** What a rule does: it marks, makes a follow-up, sends a message. */
export function DoesFields({ rule: { when, does }, offered, messages, onChange }: DoesProps) {
  const { mark, followUp, message } = does;
  const at = (field: string) => messages[`rule.does.${field}`];
  const whole = messages['rule.does'];
  const canMark = isOfEntries(when.trigger);
  return (
    <fieldset className="grid gap-4">
      <legend className="mb-2 text-lg">{editRuleWords.does}</legend>
      {canMark ? (
        <Part
          label={editRuleWords.markIt}
          isOn={mark !== null}
          onSwitch={(isOn) => onChange({ ...does, mark: isOn ? { word: '', look: 'line' } : null })}
        >
          {mark && (
            <>
              <LabelledInput
                label={editRuleWords.word}
                value={mark.word}
                message={at('mark.word')}
                onChange={(word) => onChange({ ...does, mark: { ...mark, word } })}
              />
              <LabelledSelect
                label={editRuleWords.look}
                value={mark.look}
                options={markLooks.map((id) => ({ id, name: lookWords[id] }))}
                onChange={(id) =>
                  onChange({ ...does, mark: { ...mark, look: markLooks.find((one) => one === id) ?? 'line' } })
                }
              />
              {mark.word && (
                <span className="self-end pb-2">
                  <EntryMarks marks={[{ ...mark, ruleId: '' }]} />
                </span>
              )}
            </>
          )}
        </Part>
      ) : (
        <p className="text-small text-ink-2">{editRuleWords.noEntry}</p>
      )}
      <Part
        label={editRuleWords.makeFollowUp}
        isOn={followUp !== null}
        onSwitch={(isOn) =>
          onChange({ ...does, followUp: isOn ? { what: '', forWhom: 'caseManager', inDays: 2 } : null })
        }
      >
        {followUp && (
          <>
            <div className="min-w-60 flex-1">
              <LabelledInput
                label={editRuleWords.what}
                value={followUp.what}
                message={at('followUp.what')}
                onChange={(what) => onChange({ ...does, followUp: { ...followUp, what } })}
              />
            </div>
            <ForWhomSelect
              label={editRuleWords.forWhom}
              value={followUp.forWhom}
              people={offered.people}
              message={at('followUp.forWhom')}
              onChange={(forWhom) => onChange({ ...does, followUp: { ...followUp, forWhom } })}
            />
            <NumberInput
              label={editRuleWords.due}
              value={followUp.inDays}
              message={at('followUp.inDays')}
              onChange={(inDays) => onChange({ ...does, followUp: { ...followUp, inDays } })}
            />
          </>
        )}
      </Part>
      <Part
        label={editRuleWords.sendMessage}
        isOn={message !== null}
        onSwitch={(isOn) => onChange({ ...does, message: isOn ? { forWhom: 'caseManager' } : null })}
      >
        {message && (
          <ForWhomSelect
            label={editRuleWords.toWhom}
            value={message.forWhom}
            people={offered.people}
            message={at('message.forWhom')}
            onChange={(forWhom) => onChange({ ...does, message: { forWhom } })}
          />
        )}
      </Part>
      <FieldMessage messages={whole ? [whole] : undefined} />
    </fieldset>
  );
}

interface PartProps {
  label: string;
  isOn: boolean;
  onSwitch: (isOn: boolean) => void;
  children: ReactNode;
}

/** One thing that a rule can do, with what belongs to it while it is chosen. */
function Part({ label, isOn, onSwitch, children }: PartProps) {
  return (
    <div className="border-l-2 border-rule pl-3">
      <label className="tap flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={isOn}
          onChange={({ target }) => onSwitch(target.checked)}
        />
        {label}
      </label>
      {isOn && <div className="mt-2 flex flex-wrap items-start gap-3">{children}</div>}
    </div>
  );
}

function ForWhomSelect(props: {
  label: string;
  value: ForWhom;
  people: readonly { id: string; name: string }[];
  message: string | undefined;
  onChange: (forWhom: ForWhom) => void;
}) {
  const { label, value, people, message, onChange } = props;
  const usual = Object.entries(editRuleWords.forWhoms).map(([id, name]) => ({ id, name }));
  return (
    <LabelledSelect
      label={label}
      value={value}
      options={[...usual, ...people]}
      message={message}
      onChange={(id) => onChange(id ?? 'caseManager')}
    />
  );
}
