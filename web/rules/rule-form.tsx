import { useEffect, useState } from 'react';
import { Link, useFetcher } from 'react-router';
import type { RuleInput, RuleScope } from '~/core/rules/rule';
import { isOfEntries, type Rule } from '~/core/rules/rule';
import { ruleSentence, scopeWords } from '~/core/rules/rule-sentence';
import type { OfferedForRules } from '~/server/rules/offered';
import { FieldMessage } from '../platform/ui/fields';
import { LabelledInput, LabelledSelect } from '../platform/ui/labelled';
import { Unsaved } from '../platform/ui/unsaved';
import { useSaving } from '../platform/ui/use-saving';
import { DoesFields } from './does-fields';
import { namesFrom } from './names';
import { RulePreview } from './rule-preview';
import { WhenFields } from './when-fields';
import { editRuleWords } from './words';

interface RuleFormProps {
  begun: Omit<RuleInput, 'mayTellOften'>;
  isNew: boolean;
  isSchoolAdmin: boolean;
  offered: OfferedForRules;
}

type Answer = { messages: Record<string, string> } | { unreachable: true };

/** A rule by choosing, read out as a sentence, with what it would have done. */
export function RuleForm({ begun, isNew, isSchoolAdmin, offered }: RuleFormProps) {
  const [name, setName] = useState(begun.name);
  const [scope, setScope] = useState(begun.scope);
  const [rule, setRule] = useState(begun.rule);
  const [isTouched, setTouched] = useState(false);
  const { answer, isBusy, isUnreachable, save } = useSaving<Answer>(isNew ? '/rules/new' : `/rules/${begun.id}`);
  const messages = answer && 'messages' in answer ? answer.messages : {};
  const names = namesFrom(offered);
  const preview = usePreview({ rule, scope });
  const change = (next: Partial<Rule>) => {
    setTouched(true);
    const changed = { ...rule, ...next };
    const { mark } = changed.does;
    setRule({ ...changed, does: { ...changed.does, mark: isOfEntries(changed.when.trigger) ? mark : null } });
  };
  const send = (mayTellOften: boolean) => save({ id: begun.id, name, scope, rule, mayTellOften });
  return (
    <form
      className="mt-5 grid max-w-3xl gap-7"
      onSubmit={(event) => {
        event.preventDefault();
        send(false);
      }}
    >
      <Unsaved isUnsaved={isTouched && !isBusy} />
      <div className="grid gap-4 sm:grid-cols-2">
        <LabelledInput
          label={editRuleWords.name}
          value={name}
          message={messages.name}
          onChange={(text) => {
            setTouched(true);
            setName(text);
          }}
        />
        {isNew ? (
          <ScopeFields
            {...{ scope, offered, isSchoolAdmin, messages }}
            onChange={(next) => {
              setTouched(true);
              setScope(next);
            }}
          />
        ) : (
          <p className="text-small text-ink-2">
            {editRuleWords.aboutWhom}: {scopeWords(scope, names)}. {editRuleWords.whomStays}
          </p>
        )}
      </div>
      <WhenFields {...{ when: rule.when, offered, messages }} onChange={(when) => change({ when })} />
      <DoesFields {...{ rule, offered, messages }} onChange={(does) => change({ does })} />
      <section className="rounded-box border border-rule bg-sheet p-4">
        <h2 className="text-small font-semibold text-ink-2">{editRuleWords.itSays}</h2>
        <p className="mt-1 text-lg">{ruleSentence(rule, names)}</p>
        <RulePreview {...preview} />
      </section>
      {messages.mayTellOften && (
        <div role="alert" className="alert alert-error alert-soft block">
          <p>{messages.mayTellOften}</p>
          <button type="button" className="btn btn-sm mt-2" onClick={() => send(true)}>
            {editRuleWords.mayTellOften}
          </button>
        </div>
      )}
      <FieldMessage messages={messages.form ? [messages.form] : undefined} />
      {isUnreachable && <FieldMessage messages={[editRuleWords.unreachable]} />}
      <p className="flex gap-3">
        <button type="submit" className="btn btn-primary" disabled={isBusy}>
          {isBusy ? editRuleWords.saving : editRuleWords.save}
        </button>
        <Link to="/rules" className="btn">
          {editRuleWords.cancel}
        </Link>
      </p>
    </form>
  );
}

/** While one types, nothing is reckoned; in milliseconds. */
const STILL = 400;

/** What the rule would have done, asked once it has not changed for a moment. */
function usePreview(asked: { rule: Rule; scope: RuleScope }) {
  const { load, data, state } = useFetcher<typeof import('./preview-rule').loader>();
  const text = JSON.stringify(asked);
  useEffect(() => {
    const timer = setTimeout(() => void load(`/rules/preview?${new URLSearchParams({ asked: text })}`), STILL);
    return () => clearTimeout(timer);
  }, [load, text]);
  return { preview: data?.preview, isBusy: state !== 'idle' };
}

interface ScopeProps {
  scope: RuleScope;
  offered: OfferedForRules;
  isSchoolAdmin: boolean;
  messages: Record<string, string>;
  onChange: (scope: RuleScope) => void;
}

/** Whom the rule is about. */
function ScopeFields({ scope, offered, isSchoolAdmin, messages, onChange }: ScopeProps) {
  const { school, ...others } = editRuleWords.scopes;
  const kinds = { ...others, ...(isSchoolAdmin && { school }) };
  const begin = (of: string | null): RuleScope => {
    if (of === 'student') return { of, studentId: '' };
    if (of === 'group') return { of, groupId: '' };
    return of === 'school' ? { of } : { of: 'mine' };
  };
  return (
    <div className="grid content-start gap-3">
      <LabelledSelect
        label={editRuleWords.aboutWhom}
        value={scope.of}
        options={Object.entries(kinds).map(([id, label]) => ({ id, name: label }))}
        message={messages.scope}
        onChange={(of) => onChange(begin(of))}
      />
      {scope.of === 'student' && (
        <LabelledSelect
          label={editRuleWords.student}
          value={scope.studentId}
          none={editRuleWords.choose}
          options={offered.students}
          message={messages['scope.studentId']}
          onChange={(id) => onChange({ of: 'student', studentId: id ?? '' })}
        />
      )}
      {scope.of === 'group' && (
        <LabelledSelect
          label={editRuleWords.group}
          value={scope.groupId}
          none={editRuleWords.choose}
          options={offered.groups}
          message={messages['scope.groupId']}
          onChange={(id) => onChange({ of: 'group', groupId: id ?? '' })}
        />
      )}
    </div>
  );
}
