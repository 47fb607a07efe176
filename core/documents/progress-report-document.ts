import { type IsoDate, longDate, shortDate } from '../calendar/iso-date';
import type { GoalGraph } from '../progress/graph/goal-graph';
import type { GoalReport, ProgressReport } from '../progress-report/content';
import { type Comment, commentSaid } from '../sharing/comment';
import type { Shows } from '../sharing/visibility-rule';
import { listed } from '../words/counting';
import { isEmptyText, plainText, type RichText } from '../words/rich-text';
import { mapTexts } from '../words/texts';
import type { DocumentBlock, ReportDocument } from './document';
import { saidBy } from './individual-report-document';
import type { Table } from './table';

/** What an issued report carries besides what it says; null for a draft. */
export interface Issue {
  number: number;
  issuedOn: IsoDate;
  /** The number of the report that it replaces. */
  replaces: number | null;
  /** What a family stated or asked of it since, and what was decided. */
  statements?: readonly Pick<Comment, 'by' | 'to' | 'kind' | 'on' | 'outcome' | 'text'>[];
}

export const periodWords = ({ label, from, to }: ProgressReport['period']) =>
  `${label}, ${shortDate(from)} – ${longDate(to).replace(/^\w+, /, '')}`;

/** “No. 2, issued Fri, Dec 4, 2026”, or that it is a draft. */
export function issueWords(issue: Issue | null): string {
  if (!issue) return 'Draft: not issued';
  const replaces = issue.replaces === null ? '' : `, in place of no. ${issue.replaces}`;
  return `No. ${issue.number}, issued ${longDate(issue.issuedOn)}${replaces}`;
}

/** The report as its reader may see it: behavior only where ABC notes are shown to them. */
export function progressReportFor(report: ProgressReport, shows: Shows): ProgressReport {
  if (shows.has('abc') || report.behavior.length === 0) return report;
  return { ...report, behavior: [], leftOut: [...(report.leftOut ?? []), 'behavior in brief'] };
}

/** A graph with what was typed onto it changed: what its phases are called. */
export const withoutNamesOnIt = (graph: GoalGraph, hide: (text: string) => string): GoalGraph => ({
  ...graph,
  phases: graph.phases.map(({ on, label }) => ({ on, label: hide(label) })),
});

/**
 * The report as a reader from outside may read it: other children are “a classmate” in all that was typed for it, the teacher’s own
 * words and the goals’ wordings among them. What it says of the student, the school and the plan stays.
 *
 * @param hide  a text without other children’s names
 */
export function progressReportOutside(
  report: ProgressReport,
  shows: Shows,
  hide: (text: string) => string,
): ProgressReport {
  const { goals, behavior, words, leftOut = [], ...about } = progressReportFor(report, shows);
  let hidden = false;
  const without = (text: string) => {
    const said = hide(text);
    hidden ||= said !== text;
    return said;
  };
  const texts = ({ goalId, graph, decision, ...goal }: GoalReport): GoalReport => ({
    ...{ goalId, decision, graph: graph && withoutNamesOnIt(graph, without) },
    ...mapTexts(goal, without),
  });
  const said = { goals: goals.map(texts), behavior: mapTexts(behavior, without), words: mapTexts(words, without) };
  return { ...about, ...said, leftOut: hidden ? [...leftOut, 'names of other children'] : leftOut };
}

/** Everything in a report that somebody has typed, for whoever looks for other children’s names in it. */
export function typedTexts({ goals, behavior, words }: ProgressReport): string[] {
  return [
    plainText(words),
    ...goals.flatMap((goal) => [goal.shortName, goal.wording, goal.criterion, plainText(goal.words)]),
    ...behavior,
  ];
}

/**
 * A progress report as a document.
 *
 * @param options.keepsEmpty  whether own words have their place where there are none yet: for the one who is writing them
 */
export function progressReportDocument(
  report: ProgressReport,
  issue: Issue | null,
  { keepsEmpty = false }: { keepsEmpty?: boolean } = {},
): ReportDocument {
  const { student, schoolName, period, plan, caseManager, behavior, words } = report;
  const ownWords = (own: RichText, place: string | null): DocumentBlock[] =>
    keepsEmpty || !isEmptyText(own) ? [{ kind: 'rich', words: own, place }] : [];
  const blocks: DocumentBlock[] = [
    { kind: 'heading', level: 1, text: student.name },
    {
      kind: 'text',
      quiet: true,
      text: ['Progress report', periodWords(period), issueWords(issue)].join(' · '),
    },
    {
      kind: 'text',
      quiet: true,
      text: [
        student.grade,
        ...student.groups,
        `Plan ${shortDate(plan.startsOn)} – ${longDate(plan.endsOn).replace(/^\w+, /, '')}`,
        `Case manager: ${caseManager}`,
      ].join(' · '),
    },
    ...(report.leftOut && report.leftOut.length > 0
      ? [{ kind: 'text' as const, quiet: true, text: `Left out for this reader: ${listed(report.leftOut)}.` }]
      : []),
    ...ownWords(words, null),
    ...report.goals.flatMap((goal) => [...goalBlocks(goal), ...ownWords(goal.words, goal.goalId)]),
    ...(behavior.length === 0
      ? []
      : [
          { kind: 'heading' as const, level: 2 as const, text: 'Behavior in brief' },
          ...behavior.map((text) => ({ kind: 'text' as const, text })),
        ]),
    ...statementBlocks(issue?.statements ?? []),
    { kind: 'signatures', names: ['Case manager', 'Parent or guardian', 'Student'] },
  ];
  return {
    title: `Progress report of ${student.shortName}, ${period.label}`,
    head: `${student.shortName} · progress report · ${periodWords(period)} · ${schoolName}`,
    blocks,
  };
}

/** A family’s statements stay with the report wherever it is shown (34 CFR 99.21, from memory). */
function statementBlocks(statements: NonNullable<Issue['statements']>): DocumentBlock[] {
  if (statements.length === 0) return [];
  return [
    { kind: 'heading', level: 2, text: 'Said of this report since it was issued' },
    ...statements.flatMap((one): DocumentBlock[] => [
      { kind: 'heading', level: 3, text: `${saidBy(one)}, ${longDate(one.on)}` },
      { kind: 'text', text: commentSaid(one) },
    ]),
  ];
}

function goalBlocks(goal: GoalReport): DocumentBlock[] {
  const facts: [string, string][] = [
    ['Baseline', goal.baseline ?? 'none yet'],
    ['Now', goal.now ?? 'nothing measured yet'],
    ['Target', goal.target],
    ...(goal.way ? [['Progress toward the target', goal.way] satisfies [string, string]] : []),
    ['Evidence', goal.evidence],
    ...(goal.further ?? []),
  ];
  return [
    { kind: 'heading', level: 2, text: `${goal.number} · ${goal.shortName}` },
    { kind: 'text', text: goal.wording },
    { kind: 'text', quiet: true, text: goal.criterion },
    { kind: 'heading', level: 3, text: goal.decision.label },
    { kind: 'text', text: goal.decision.sentence },
    { kind: 'facts', facts },
    ...(goal.graph ? [{ kind: 'graph' as const, graph: goal.graph }] : []),
  ];
}

/** A progress report as a table, a row for each goal. */
export function progressTable(report: ProgressReport): Table {
  return {
    name: 'Progress report',
    fields: ['goal', 'name', 'wording', 'criterion', 'baseline', 'now', 'target', 'way', 'decision', 'why', 'evidence'],
    rows: report.goals.map((goal) => [
      goal.number,
      goal.shortName,
      goal.wording,
      goal.criterion,
      goal.baseline ?? '',
      goal.now ?? '',
      goal.target,
      goal.way ?? '',
      goal.decision.label,
      goal.decision.sentence,
      goal.evidence,
    ]),
  };
}
