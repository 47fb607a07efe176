import { z } from 'zod';
import type { RubricDefinition } from '../../measures/rubric/rubric';
import { criterionName } from '../../measures/rubric/rubric';
import { krippendorffAlpha } from '../../statistics/krippendorff';
import { mean } from '../../statistics/spread';
import { percent } from '../../words/counting';
import type { Rating } from './ratings';

/** At most so many rate one work sample. */
export const MOST_EACH = 6;
const MOST_RATERS = 60;
const MOST_SAMPLES = 60;
export const LONGEST_WORK = 20_000;

/** A stack of work samples, one of each student, that several people rate. */
export const stackInput = z.object({
  id: z.uuid(),
  title: z
    .string({ error: 'Say what is rated.' })
    .trim()
    .min(1, { error: 'Say what is rated.' })
    .max(80, { error: 'Keep it to 80 characters.' }),
  /** The goals by whose rubric each one is rated. */
  goalIds: z
    .array(z.uuid())
    .min(1, { error: 'Choose at least one student.' })
    .max(MOST_SAMPLES, { error: `At most ${MOST_SAMPLES} work samples.` }),
  staffIds: z.array(z.uuid()).max(MOST_RATERS).default([]),
  classmateIds: z.array(z.uuid()).max(MOST_RATERS).default([]),
  each: z.coerce.number().int().min(1).max(MOST_EACH),
});
export type StackInput = z.infer<typeof stackInput>;

export interface StackSample {
  id: string;
  studentId: string;
}

export interface StackRater {
  id: string;
  /** The student that this rater is; null for staff. */
  studentId: string | null;
}

/** Who rates which. */
export interface Turn {
  sampleId: string;
  raterId: string;
}

/**
 * Spreads raters over work samples: each sample gets as many as wanted where there are as many, nobody their own, nobody one twice, and all
 * about the same number.
 *
 * @param each  how many rate one sample
 * @param kept  turns that stay, because they were rated already
 * @example spreadRaters([{ id: 's', studentId: 'ada' }], [{ id: 'r', studentId: 'ada' }], 1) // []: nobody rates their own
 */
export function spreadRaters(
  samples: readonly StackSample[],
  raters: readonly StackRater[],
  each: number,
  kept: readonly Turn[] = [],
): Turn[] {
  const turns = [...kept];
  const loadOf = (id: string) => turns.filter(({ raterId }) => raterId === id).length;
  const mayRate = (rater: StackRater, sample: StackSample) =>
    rater.studentId !== sample.studentId &&
    !turns.some(({ sampleId, raterId }) => sampleId === sample.id && raterId === rater.id);
  for (const [at, sample] of samples.entries()) {
    const had = turns.filter(({ sampleId }) => sampleId === sample.id).length;
    for (let n = had; n < each; n++) {
      // Beginning elsewhere for each sample, so that not the same ones always meet.
      const inTurn = raters.map((_, i) => raters[(i + at) % raters.length]).filter((one) => one !== undefined);
      const free = inTurn.filter((rater) => mayRate(rater, sample));
      const least = Math.min(...free.map(({ id }) => loadOf(id)));
      const next = free.find(({ id }) => loadOf(id) === least);
      if (next) turns.push({ sampleId: sample.id, raterId: next.id });
    }
  }
  return evened(samples, raters, turns, new Set(kept));
}

/** Hands turns from those who have most to those who have least, as long as two or more lie between them. */
function evened(
  samples: readonly StackSample[],
  raters: readonly StackRater[],
  turns: readonly Turn[],
  kept: ReadonlySet<Turn>,
): Turn[] {
  const result = [...turns];
  const loadOf = (id: string) => result.filter(({ raterId }) => raterId === id).length;
  const ownerOf = new Map(samples.map(({ id, studentId }) => [id, studentId]));
  for (let tries = result.length; tries > 0; tries--) {
    const move = result.findIndex((turn) => !kept.has(turn) && takerOf(turn) !== undefined);
    const turn = result[move];
    const taker = turn && takerOf(turn);
    if (!turn || !taker) return result;
    result[move] = { sampleId: turn.sampleId, raterId: taker.id };
  }
  return result;

  function takerOf({ sampleId, raterId }: Turn): StackRater | undefined {
    const load = loadOf(raterId);
    return raters.find(
      (rater) =>
        loadOf(rater.id) <= load - 2 &&
        rater.studentId !== ownerOf.get(sampleId) &&
        !result.some((one) => one.sampleId === sampleId && one.raterId === rater.id),
    );
  }
}

/** Of fewer pairs a coefficient says more than it knows: our own choice. */
export const LEAST_PAIRS = 10;

export interface CriterionAgreement {
  key: string;
  label: string;
  /** Pairs of raters of the same sample that rated this criterion. */
  pairs: number;
  /** The share of them that gave the same level, and the same or a neighbouring one; null where there are no pairs. */
  same: number | null;
  near: number | null;
  /** Krippendorff's alpha for ordered levels; null of few pairs, and where nothing could have differed. */
  alpha: number | null;
}

/**
 * How far the raters of a stack agree, criterion by criterion: over all pairs of raters of one sample, and beyond chance.
 *
 * @param ratings  of each work sample
 */
export function stackAgreement(
  { criteria }: RubricDefinition,
  ratings: readonly (readonly Pick<Rating, 'points'>[])[],
): CriterionAgreement[] {
  return criteria.map((criterion) => {
    const { key, levels } = criterion;
    const ladder = levels.map(({ points }) => points).sort((a, b) => a - b);
    // By place on the ladder: a level may be worth more than one point more than the one below.
    const places = ratings.map((of) =>
      of.flatMap(({ points }) => (points[key] === undefined ? [] : [ladder.indexOf(points[key])])),
    );
    const apart = places.flatMap((of) => of.flatMap((one, i) => of.slice(i + 1).map((other) => Math.abs(one - other))));
    const share = (most: number) =>
      apart.length === 0 ? null : mean(apart.map((distance) => Number(distance <= most)));
    return {
      ...{ key, label: criterionName(criterion), pairs: apart.length, same: share(0), near: share(1) },
      alpha: apart.length < LEAST_PAIRS ? null : krippendorffAlpha(places, 'ordinal'),
    };
  });
}

/** “12 of 15 pairs the same (80%), 15 within one level (100%)”, or that there is no pair. */
export function agreementWords({ pairs, same, near }: CriterionAgreement): string {
  if (pairs === 0 || same === null || near === null) return 'no two have rated the same one yet';
  const count = (share: number) => Math.round(share * pairs);
  return `${count(same)} of ${pairs} pairs the same (${percent(100 * same)}), ${count(near)} within one level (${percent(100 * near)})`;
}
