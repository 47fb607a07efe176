import type { DocumentBlock, ReportDocument } from './document';
import { firstPageBlocks, type GoalAtFirst } from './first-page';

interface Brief {
  name: string;
  shortName: string;
  schoolName: string;
  /** What it is and of which days. */
  about: string;
  goals: readonly GoalAtFirst[];
  /** From the widest to the closest: with graphs, without them, a row for each goal. */
  form: 'graphs' | 'words' | 'table';
}

/** How a student stands in each goal, short: for a page to hand out. */
export function briefDocument({ name, shortName, schoolName, about, goals, form }: Brief): ReportDocument {
  const drawn = form === 'table' ? [tableOf(goals)] : firstPageBlocks(goals, { withGraphs: form === 'graphs' });
  return {
    title: `${shortName}, in brief`,
    head: `${shortName} · in brief · ${schoolName}`,
    blocks: [
      { kind: 'heading', level: 1, text: name },
      { kind: 'text', quiet: true, text: about },
      ...(goals.length === 0 ? [{ kind: 'text' as const, text: 'No goal is worked on.' }] : drawn),
    ],
  };
}

const tableOf = (goals: readonly GoalAtFirst[]): DocumentBlock => ({
  kind: 'table',
  columns: ['Goal', 'Where they stand', 'Target'],
  widths: ['wide', 'wide', 'wide'],
  rows: goals.map(({ title, stands, decision, target }) => [
    title,
    [stands, decision?.label].filter(Boolean).join(' '),
    target,
  ]),
});
