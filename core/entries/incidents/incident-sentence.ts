import { capitalised, counted, lengthOfTime, listed } from '../../words/counting';

/** What an ABC incident says, with its choices by name. */
export interface SaidIncident {
  behaviors: readonly string[];
  antecedents: readonly string[];
  consequences: readonly string[];
  functions: readonly string[];
  seconds: number | null;
  isGoing: boolean;
  /** The step on the student’s scale, and its descriptor. */
  intensity: { name: string; words: string } | null;
  resolved: boolean | null;
  resolvedAfter: number | null;
}

const quoted = (names: readonly string[]) => listed(names.map((name) => `“${name}”`));

/**
 * An ABC incident as the report says it.
 *
 * @example incidentSentence({ behaviors: ['Left the bench'], antecedents: ['A tool started'], consequences: ['A break'], seconds: 240, … })
 * // 'Left the bench. Before: “A tool started”. Then: “A break”. It lasted 4 min.'
 */
export function incidentSentence(note: SaidIncident): string {
  const { behaviors, antecedents, consequences, functions, seconds, isGoing, intensity } = note;
  const parts = [
    `${capitalised(listed(behaviors))}.`,
    antecedents.length > 0 && `Before: ${quoted(antecedents)}.`,
    consequences.length > 0 && `Then: ${quoted(consequences)}.`,
    seconds !== null && `It lasted ${lengthOfTime(seconds)}.`,
    isGoing && 'How long it lasted has not been said.',
    intensity && `Intensity: ${intensity.words ? `${intensity.name}, ${intensity.words}` : intensity.name}.`,
    resolvedWords(note),
    functions.length > 0 && `It may have been for ${listed(functions)}; that is a guess.`,
  ];
  return parts.filter(Boolean).join(' ');
}

function resolvedWords({ resolved, resolvedAfter }: SaidIncident): string | false {
  if (resolved === null) return false;
  if (!resolved) return 'It was not resolved.';
  return resolvedAfter === null ? 'It was resolved.' : `It was resolved after ${lengthOfTime(resolvedAfter)}.`;
}

/**
 * An observation window as the report says it.
 *
 * @example countSentence({ behavior: 'Calling out', count: 0, minutes: 45, seconds: null, part: 'Kitchen' })
 * // 'Calling out: none in 45 min observed (Kitchen).'
 */
export function countSentence(counts: {
  behavior: string;
  count: number;
  minutes: number;
  seconds: number | null;
  part: string | null;
}): string {
  const { behavior, count, minutes, seconds, part } = counts;
  const often = count === 0 ? 'none' : counted(count, 'time', 'times');
  const long = seconds !== null && seconds > 0 ? `, ${lengthOfTime(seconds)} altogether,` : '';
  return `${behavior}: ${often}${long} in ${lengthOfTime(60 * minutes)} observed${part ? ` (${part})` : ''}.`;
}
