import { z } from 'zod';
import { noScoreReasons } from '../measures/score';
import type { DecisionIs } from '../progress/decision-words';

/** What can fulfil a rule. */
export const ruleTriggers = ['goalEntry', 'incident', 'often', 'answer', 'stuck', 'quiet', 'decision'] as const;
export type RuleTrigger = (typeof ruleTriggers)[number];

/** What is counted of what happens often: incidents as they were noted, or the times counted while watching. */
export const oftenOf = ['incidents', 'counts'] as const;

/** How a mark looks: always with its word, never by colour alone. */
export const markLooks = ['line', 'wash', 'bold'] as const;
export type MarkLook = (typeof markLooks)[number];

/** What a rule says of an entry. */
export interface EntryMark {
  word: string;
  look: MarkLook;
  /** The rule that says it. */
  ruleId: string;
}

const nameField = (error: string) =>
  z.string({ error }).trim().min(1, { error }).max(80, { error: 'Keep it to 80 characters.' });
const whole = (least: number, most: number) => {
  const error = `Type a whole number from ${least} to ${most}.`;
  return z.number({ error }).int({ error }).min(least, { error }).max(most, { error });
};

/** Of a goal's entry. Levels and items are named as the goals name them, whatever the case and the spaces. */
const goalCondition = z.discriminatedUnion('is', [
  z.object({ is: z.literal('goal'), goalId: z.uuid({ error: 'Choose a goal.' }) }),
  z.object({ is: z.literal('area'), area: nameField('Choose an area.') }),
  /** In percent, of measures that are shares; in its own unit where the rule names one goal. */
  z.object({
    is: z.literal('figure'),
    comparison: z.enum(['below', 'atLeast']),
    value: z.number({ error: 'Type a number.' }).finite().min(-1e6).max(1e6),
  }),
  z.object({ is: z.literal('level'), level: nameField('Choose a support level.') }),
  z.object({ is: z.literal('item'), item: nameField('Choose an item.') }),
  z.object({ is: z.literal('noScore'), reason: z.enum(noScoreReasons) }),
  z.object({ is: z.literal('partial') }),
  /** Of a rubric: the student rated a criterion at one of its lowest levels, so many of them. */
  z.object({ is: z.literal('selfRating'), lowest: whole(1, 9) }),
]);
export type GoalCondition = z.infer<typeof goalCondition>;

const incidentCondition = z.discriminatedUnion('is', [
  z.object({ is: z.literal('behavior'), name: nameField('Choose a behavior.') }),
  z.object({ is: z.literal('antecedent'), name: nameField('Choose an antecedent.') }),
  z.object({ is: z.literal('location'), name: nameField('Choose a location.') }),
  z.object({ is: z.literal('intensity'), step: whole(1, 10) }),
  z.object({ is: z.literal('lasted'), minutes: whole(1, 600) }),
  z.object({ is: z.literal('unresolved') }),
]);
export type IncidentCondition = z.infer<typeof incidentCondition>;

const conditions = <T extends z.ZodType>(one: T) => ({
  fulfils: z.enum(['all', 'any']),
  conditions: z.array(one).min(1, { error: 'Add a condition: without one it would mark everything.' }).max(8),
});

/** Decisions of a goal that a rule can wait for: all but those that say only that there is too little. */
export const ruledDecisions = [
  ...(['below', 'above', 'metHolding', 'metNotHolding', 'metNotChecked', 'noRecentData'] as const),
] satisfies DecisionIs[];

export const ruleWhen = z.discriminatedUnion('trigger', [
  z.object({ trigger: z.literal('goalEntry'), ...conditions(goalCondition) }),
  z.object({ trigger: z.literal('incident'), ...conditions(incidentCondition) }),
  /** So many incidents, or so many times as they were counted, of one behavior or of any, in so many school days. */
  z.object({
    trigger: z.literal('often'),
    of: z.enum(oftenOf).default('incidents'),
    behavior: nameField('Choose a behavior.').nullable(),
    times: whole(2, 100),
    days: whole(1, 60),
  }),
  /** What a student answered in a form about themselves, and the form points out. */
  z.object({ trigger: z.literal('answer') }),
  z.object({ trigger: z.literal('stuck') }),
  z.object({ trigger: z.literal('quiet'), days: whole(2, 60) }),
  z.object({
    trigger: z.literal('decision'),
    decisions: z.array(z.enum(ruledDecisions)).min(1, { error: 'Choose at least one.' }),
  }),
]);
export type RuleWhen = z.infer<typeof ruleWhen>;

/** For whom something follows; the case manager where that person has left the team. */
export const forWhomField = z.union([
  z.enum(['caseManager', 'recorder', 'maker']),
  z.uuid({ error: 'Choose for whom.' }),
]);
export type ForWhom = z.infer<typeof forWhomField>;

const does = z.object({
  mark: z
    .object({
      word: nameField('Type the word of the mark.').max(24, { error: 'Keep it to 24 letters.' }),
      look: z.enum(markLooks),
    })
    .nullable(),
  followUp: z
    .object({ what: nameField('Type what is to be done.').max(200), forWhom: forWhomField, inDays: whole(0, 60) })
    .nullable(),
  message: z.object({ forWhom: forWhomField }).nullable(),
});
export type RuleDoes = z.infer<typeof does>;

/** Whether of the past it can be told what would have fulfilled it: not of what is looked at as it happens, or each evening. */
export const isToldOfPast = (trigger: RuleTrigger): boolean => isOfEntries(trigger) || trigger === 'often';

/** Triggers that are an entry, which can be marked. */
export const isOfEntries = (trigger: RuleTrigger): boolean =>
  trigger === 'goalEntry' || trigger === 'incident' || trigger === 'answer';

export const rule = z
  .object({ when: ruleWhen, does })
  .superRefine(({ when, does: { mark, followUp, message } }, context) => {
    const refuse = (error: string) => context.addIssue({ code: 'custom', message: error, path: ['does'], input: when });
    if (!mark && !followUp && !message)
      refuse('Say what it does: mark the entry, make a follow-up, or send a message.');
    if (mark && !isOfEntries(when.trigger))
      refuse('There is no entry to mark. Make a follow-up or send a message instead.');
  });
export type Rule = z.infer<typeof rule>;

/** Whom a rule is about. */
export const ruleScope = z.discriminatedUnion('of', [
  z.object({ of: z.literal('student'), studentId: z.uuid({ error: 'Choose a student.' }) }),
  z.object({ of: z.literal('group'), groupId: z.uuid({ error: 'Choose a group.' }) }),
  z.object({ of: z.literal('mine') }),
  z.object({ of: z.literal('school') }),
]);
export type RuleScope = z.infer<typeof ruleScope>;

/** A rule as it is saved. Whom it is about is said once and stays: about others it is another rule. */
export const ruleInput = z.object({
  id: z.uuid(),
  name: nameField('Give it a name.'),
  scope: ruleScope,
  rule,
  /** It was asked whether it may send as many messages as that, and it may. */
  mayTellOften: z.boolean().default(false),
});
export type RuleInput = z.infer<typeof ruleInput>;
