import type { z } from 'zod';
import type { PairAgreement } from './agreement/pair';
import type { Cell } from './cells';
import type { Comparison, CriterionDefinition } from './criterion-definition';
import type { MeasureData, MeasureDefinition } from './measure';
import type { Axis, MeasureKind } from './measure-kind';
import type { Cells, Column, Take } from './measure-table';
import type { Noun } from './named';
import type { OneCell } from './one-cell';
import type { BreakdownLine, Score, Scored } from './score';

/** What `MeasureKind` says, of one goal. */
export type Measure = Pick<MeasureOfGoal<MeasureDefinition, MeasureData>, keyof MeasureOfGoal<never, never>>;

/** A kind of measure with the definition of one goal. */
export class MeasureOfGoal<D extends MeasureDefinition, T extends MeasureData> {
  readonly #kind: MeasureKind<D, T>;
  readonly #definition: D;

  constructor(kind: MeasureKind<D, T>, definition: D) {
    this.#kind = kind;
    this.#definition = definition;
  }

  get accumulates(): boolean {
    return this.#kind.accumulates;
  }
  get isShare(): boolean {
    return this.#kind.isShare;
  }
  get axis(): Axis {
    return this.#kind.axis(this.#definition);
  }
  get weightNoun(): Noun {
    return this.#kind.weightNoun(this.#definition);
  }
  get columns(): Column[] {
    return this.#kind.table.columns(this.#definition);
  }
  get data(): z.ZodType<MeasureData> {
    return this.#kind.data(this.#definition);
  }
  /** Whether data is of this goal’s kind: what was kept on a device may be older than the goal is as it stands. */
  holds(data: object): boolean {
    return this.#kind.holds(data);
  }
  pool([first, ...others]: readonly [MeasureData, ...MeasureData[]]): MeasureData {
    const own: [T, ...T[]] = [this.#own(first)];
    for (const data of others) own.push(this.#own(data));
    return this.#kind.pool(this.#definition, own);
  }
  score(data: MeasureData): Score {
    return this.#kind.score(this.#definition, this.#own(data));
  }
  /** The parts that the goal asks for and a session leaves open. */
  required(data: MeasureData): string[] {
    return this.#kind.required?.(this.#definition, this.#own(data)) ?? [];
  }
  breakdown(data: MeasureData): BreakdownLine[] {
    return this.#kind.breakdown(this.#definition, this.#own(data));
  }
  sentence(data: MeasureData, soFar: number | null = null): string {
    return this.#kind.sentence(this.#definition, this.#own(data), soFar);
  }
  said(value: number): string {
    return this.#kind.said(this.#definition, value);
  }
  basis(score: Scored): string {
    return this.#kind.basis(this.#definition, score);
  }
  asCount(value: number, comparison: Comparison): string | null {
    return this.#kind.asCount(this.#definition, value, comparison);
  }
  /** How many opportunities a session is planned to hold; null where that is not known, or a session has none. */
  opportunities(): { planned: number; areIndependent: boolean } | null {
    const { planned, areIndependent } = this.#kind.opportunities?.(this.#definition) ?? {
      ...{ planned: null, areIndependent: false },
    };
    return planned === null ? null : { planned, areIndependent };
  }
  /** The least that a session must hold to count for the criterion, unless the goal says otherwise: half of what is planned. */
  usualMinimum(): number {
    const own = this.#kind.usualMinimum?.(this.#definition);
    return Math.max(1, own ?? Math.ceil((this.opportunities()?.planned ?? 1) / 2));
  }
  discreet(): MeasureDefinition {
    return this.#kind.discreet(this.#definition);
  }
  defaultCriterion(): CriterionDefinition {
    return this.#kind.defaultCriterion(this.#definition);
  }
  meaning(): unknown[] {
    return this.#kind.meaning(this.#definition);
  }
  scale(): unknown[] {
    return (this.#kind.scale ?? this.#kind.meaning)(this.#definition);
  }
  readCells(cells: Cells, take: Take): unknown {
    return this.#kind.table.read(this.#definition, cells, take);
  }
  /** A session that stands in one cell, as the cells of the table. */
  oneCell(text: string, about: OneCell): Cell<Cells> {
    const { one } = this.#kind.table;
    if (one) return one(this.#definition, text, about);
    return { ok: true, value: { [this.columns[0]?.key ?? '']: text } };
  }
  columnOf(path: readonly PropertyKey[]): string | undefined {
    return this.#kind.table.columnOf?.(this.#definition, path);
  }
  /** Null too where one of them was recorded before the goal came to be measured otherwise. */
  agreement(a: MeasureData, b: MeasureData): PairAgreement | null {
    if (!this.holds(a) || !this.holds(b)) return null;
    return this.#kind.agreement(this.#definition, this.#own(a), this.#own(b));
  }
  withClock(data: MeasureData | null, seconds: number): MeasureData | null {
    return this.#kind.withClock?.(this.#definition, data && this.#own(data), seconds) ?? data;
  }

  #own(data: MeasureData): T {
    return own(this.#kind, data);
  }
}

/**
 * Data as that of one kind.
 *
 * @throws TypeError for the data of another: the database keeps each entry with the version of the measure it was made under
 */
export function own<T extends MeasureData>({ holds }: Pick<MeasureKind<never, T>, 'holds'>, data: MeasureData): T {
  if (!holds(data)) throw new TypeError('This data is of another kind of measure.');
  return data;
}
