import { type ChoiceKind, choiceKinds, kindWords } from '~/core/entries/incidents/choice';

/** What the incident’s screen calls its parts. */
export interface IncidentWords {
  title: string;
  asks: Record<ChoiceKind, string>;
  /** A plain hint beside it; none where it says enough. */
  hints: Partial<Record<ChoiceKind, string>>;
  howLong: string;
  resolved: string;
  words: string;
  reads: string;
  again: string;
  begin: string;
  more: string;
}

const ofEach = (part: 'asks' | 'hint') =>
  // Every kind has its pair: `fromEntries` only knows that keys are texts.
  Object.fromEntries(choiceKinds.map((kind) => [kind, kindWords[kind][part]])) as Record<ChoiceKind, string>;

const inTheOpen: IncidentWords = {
  title: 'Record an incident',
  asks: ofEach('asks'),
  hints: ofEach('hint'),
  howLong: 'How long it lasted',
  resolved: 'Was it resolved?',
  words: 'Note',
  reads: 'How it will read',
  again: 'It happened again',
  begin: 'Tap what happened. What is not tapped stays blank.',
  more: 'More: how long, resolved, words',
};

/** The same for a screen that a passing student may see: nothing that says what it is about. */
const discreetly: IncidentWords = {
  title: 'An incident',
  hints: {},
  asks: {
    behavior: 'Then',
    antecedent: 'First',
    consequence: 'Last',
    location: 'Where',
    intensity: 'Step',
    function: 'Also',
  },
  howLong: 'Minutes',
  resolved: 'Done?',
  words: 'Words',
  reads: 'In short',
  again: 'Again',
  begin: 'What is not tapped stays blank.',
  more: 'More',
};

export const incidentWords = (discreet: boolean) => (discreet ? discreetly : inTheOpen);
