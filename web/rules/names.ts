import { plainName } from '~/core/entries/incidents/choice';
import type { Rule, RuleScope } from '~/core/rules/rule';
import type { RuleNames } from '~/core/rules/rule-sentence';
import type { OfferedForRules } from '~/server/rules/offered';
import { rulesWords } from './words';

/** What ids in rules are called, by what is there to choose from. */
export function namesFrom({ goals, people, students, groups }: OfferedForRules): RuleNames {
  const find = (all: readonly { id: string; name: string }[]) => (id: string) =>
    all.find((one) => one.id === id)?.name ?? null;
  return {
    goal: (id) => goals.find((one) => one.id === id) ?? null,
    person: find(people),
    student: find(students),
    group: find(groups),
  };
}

/** What a rule waits for in vain: a goal or a choice that is retired, or that nobody has. */
export function missingIn(rule: Rule, scope: RuleScope, offered: OfferedForRules): string[] {
  const { when } = rule;
  const knows = (all: readonly string[], name: string) => all.some((one) => plainName(one) === plainName(name));
  const missing: string[] = [];
  const look = (kind: string, all: readonly string[], name: string) => {
    if (!knows(all, name)) missing.push(rulesWords.nobodyHas(kind, name));
  };
  if (when.trigger === 'goalEntry') {
    for (const one of when.conditions) {
      if (one.is === 'goal' && !offered.goals.some(({ id }) => id === one.goalId))
        missing.push(rulesWords.goalIsRetired);
      if (one.is === 'area') look(rulesWords.area, offered.areas, one.area);
      if (one.is === 'level') look(rulesWords.level, offered.levels, one.level);
      if (one.is === 'item') look(rulesWords.item, offered.items, one.item);
    }
  }
  if (when.trigger === 'incident') {
    for (const one of when.conditions) {
      if (one.is === 'behavior') look(rulesWords.behavior, offered.behaviors, one.name);
      if (one.is === 'antecedent') look(rulesWords.antecedent, offered.antecedents, one.name);
      if (one.is === 'location') look(rulesWords.location, offered.locations, one.name);
      if (one.is === 'intensity' && one.step > offered.steps) missing.push(rulesWords.noSuchStep(one.step));
    }
  }
  if (when.trigger === 'often' && when.behavior !== null) look(rulesWords.behavior, offered.behaviors, when.behavior);
  if (scope.of === 'group' && !offered.groups.some(({ id }) => id === scope.groupId))
    missing.push(rulesWords.groupIsGone);
  return missing;
}
