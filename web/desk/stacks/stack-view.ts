import { raterNames, sideBySide, spreadWords } from '~/core/entries/ratings/ratings';
import { agreementWords, stackAgreement } from '~/core/entries/ratings/stack';
import { coefficient } from '~/core/words/counting';
import { type Stack, stackRatings } from '~/server/entries/ratings/stacks';
import type { Database } from '~/server/platform/db/database';

/** How far the raters of a stack agree, for each rubric in it: goals of several students may have different ones. */
export async function stackAgreements(db: Database, stack: Stack) {
  const rated = [...(await stackRatings(db, stack)).values()];
  const rubrics = new Map(rated.map(({ rubric }) => [JSON.stringify(rubric.criteria), rubric]));
  return [...rubrics].flatMap(([key, rubric]) => {
    const same = rated.filter((one) => JSON.stringify(one.rubric.criteria) === key);
    return stackAgreement(
      rubric,
      same.map(({ ratings }) => ratings),
    ).map((one) => ({
      ...{ key: `${key} ${one.key}`, label: one.label, said: agreementWords(one) },
      alpha: one.alpha === null ? null : coefficient(one.alpha),
    }));
  });
}

/** All of a stack for handing out: each student with what was rated, by whom, every word. */
export async function stackPages(db: Database, stack: Stack, { discreet }: { discreet: boolean }) {
  const rated = await stackRatings(db, stack);
  return stack.samples.flatMap(({ id, number, name, initials }) => {
    const found = rated.get(id);
    if (!found || found.ratings.length === 0) return [];
    // On what is handed out a classmate has no name.
    const ratings = found.ratings.map((one) => (one.kind === 'staff' ? one : { ...one, name: null }));
    const names = raterNames(ratings);
    return [
      {
        ...{ id, number, name: discreet ? initials : name, raters: names },
        criteria: sideBySide(found.rubric, ratings).map((one) => ({ ...one, said: spreadWords(one) })),
        words: ratings.flatMap((one, i) => (one.words ? [{ id: one.id, by: names[i] ?? '', words: one.words }] : [])),
      },
    ];
  });
}
