import { z } from 'zod';
import type { IncidentFilter } from '~/core/behavior/filter';
import { isoDateField } from '~/core/calendar/date-fields';
import type { Choice, ChoiceKind } from '~/core/entries/incidents/choice';
import type { Naming } from '~/server/entries/incidents/incidents';

const known = <T extends z.ZodType>(schema: T) => schema.optional().catch(undefined);
const id = known(z.uuid());

/** Which incidents an address asks for; what cannot be read is passed over. */
const incidentSearch = z.object({
  behavior: id,
  antecedent: id,
  consequence: id,
  location: id,
  observer: id,
  function: id,
  intensity: known(z.coerce.number().int().min(1).max(10)),
  from: known(isoDateField),
  to: known(isoDateField),
  weekday: known(z.coerce.number().int().min(1).max(7)),
  part: known(z.string().min(1).max(60)),
  outside: known(z.literal('1')),
  quarter: known(z.string().regex(/^\d\d:\d\d$/)),
  month: known(z.string().regex(/^\d{4}-\d\d$/)),
  week: known(isoDateField),
  timed: known(z.literal('1')),
});
export type IncidentSearch = z.infer<typeof incidentSearch>;

/** What an address asks for. */
export function searchFrom(request: Request): IncidentSearch {
  return incidentSearch.parse(Object.fromEntries(new URL(request.url).searchParams));
}

/** The end of an address that asks for these incidents. */
export function searchText(search: Partial<IncidentSearch>): string {
  const said = Object.entries(search).filter(([, value]) => value !== undefined);
  return new URLSearchParams(said.map(([key, value]) => [key, String(value)])).toString();
}

/** The same as the computation asks for it: by names. A choice that is not there matches nothing. */
export function filterFrom(search: IncidentSearch, { choices }: Naming): IncidentFilter {
  const nameOf = (choiceId: string | undefined) =>
    choiceId === undefined ? undefined : (choices.get(choiceId)?.name ?? '(unknown)');
  const { intensity, from, to, weekday, part, quarter, month, week, observer } = search;
  return {
    ...{ intensity, from, to, weekday, part, quarter, month, week, observer },
    behavior: nameOf(search.behavior),
    antecedent: nameOf(search.antecedent),
    consequence: nameOf(search.consequence),
    location: nameOf(search.location),
    function: nameOf(search.function),
    outside: search.outside === '1' || undefined,
    isTimed: search.timed === '1' || undefined,
  };
}

/** Looks up the id of a choice by its kind and name. */
export function idsByName(choices: readonly Choice[]): (kind: ChoiceKind, name: string) => string | undefined {
  const ids = new Map(
    choices
      .filter(({ mergedInto }) => mergedInto === null)
      .map((choice) => [`${choice.kind} ${choice.name}`, choice.id]),
  );
  return (kind, name) => ids.get(`${kind} ${name}`);
}
