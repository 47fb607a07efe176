import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { choicesInput, plainName, standingChoices } from '../entries/incidents/choice';
import { countsInput, incidentEnd, incidentInput, phaseInput } from '../entries/incidents/incident-input';
import { countSentence, incidentSentence } from '../entries/incidents/incident-sentence';
import { discreetChoices, discreetWords } from '../goals/discreet';

const id = randomUUID;
const row = (name: string, more: object = {}) => ({ id: id(), name, ...more });
const messagesOf = (input: object) =>
  Object.fromEntries(
    (choicesInput.safeParse(input).error?.issues ?? []).map(({ path, message }) => [path.join('.'), message]),
  );

describe('choices', () => {
  it('are refused with the very same name, and questioned with nearly the same', () => {
    expect(messagesOf({ antecedent: [row('Waiting'), row('Waiting ')] })).toEqual({
      'antecedent.1.name': 'It is there already.',
    });
    expect(messagesOf({ antecedent: [row('Waiting'), row('waiting')] })).toEqual({
      'antecedent.1.isDifferent': '“Waiting” is there already. Do they mean different things?',
    });
    expect(messagesOf({ antecedent: [row('Waiting'), row('waiting', { isDifferent: true })] })).toEqual({});
    // The same name may stand in two lists.
    expect(messagesOf({ antecedent: [row('Noise')], consequence: [row('Noise')] })).toEqual({});
    expect(plainName(' Asked  to\tBegin ')).toBe('asked to begin');
  });

  it('say how a target behavior is noted', () => {
    expect(messagesOf({ behavior: [row('Hums')] })).toEqual({
      'behavior.0.abc': 'Say how it is noted: as ABC, counted or timed.',
    });
    expect(messagesOf({ behavior: [row('Hums', { counted: true })] })).toEqual({});
  });

  it('that were merged stand under the name of the one that stands for them', () => {
    const standing = standingChoices([
      { id: 'a', mergedInto: 'b', name: 'Wait' },
      { id: 'b', mergedInto: null, name: 'Waiting' },
    ]);
    expect([standing.get('a')?.name, standing.get('b')?.name]).toEqual(['Waiting', 'Waiting']);
  });

  it('are first letters in the discreet view, told apart where they would read the same, and without definitions', () => {
    expect(discreetWords(['Asked to begin', 'Alone too briefly', 'Noise', '“Éclat”'])).toEqual([
      'Atb',
      'Atb 2',
      'N',
      'É',
    ]);
    const shown = discreetChoices([
      { kind: 'behavior', name: 'Leaves the bench', words: 'Steps away', unlike: 'A pause', discreetWord: '' },
      { kind: 'behavior', name: 'Shouts', words: '', unlike: '', discreetWord: 'Red' },
      { kind: 'antecedent', name: 'Long task begun', words: '', unlike: '', discreetWord: '' },
    ]);
    expect(JSON.stringify(shown)).not.toMatch(/Leaves|bench|Steps|pause|task/);
    expect(shown.map(({ name }) => name)).toEqual(['Ltb', 'Red', 'Ltb']);
  });
});

describe('what a form sends', () => {
  const incident = {
    ...{ id: id(), on: '2026-11-24', time: '09:30', observerId: id(), locationId: null, intensityId: null },
    ...{ behaviors: [id()], antecedents: [], consequences: [], functions: [] },
    ...{ seconds: null, isGoing: false, resolved: null, resolvedAfter: null, note: '' },
  };
  const problem = (changes: object) => {
    const issue = incidentInput.safeParse({ ...incident, ...changes }).error?.issues[0];
    return issue && [issue.path.join('.'), issue.message];
  };

  it('is taken when it is whole, and refused in words where it is not', () => {
    expect(problem({})).toBeUndefined();
    expect(problem({ behaviors: [] })).toEqual(['behaviors', 'Say what happened.']);
    expect(problem({ time: '25:00' })).toEqual(['time', 'Choose a time, as hours and minutes.']);
    expect(problem({ seconds: 0 })).toEqual(['seconds', 'It lasted more than no time.']);
    expect(problem({ isGoing: true, seconds: 60 })?.[0]).toBe('seconds');
    expect(problem({ resolvedAfter: 60 })?.[0]).toBe('resolvedAfter');
    expect(problem({ resolved: true, resolvedAfter: 60 })).toBeUndefined();
    const same = id();
    expect(incidentInput.parse({ ...incident, antecedents: [same, same] }).antecedents).toEqual([same]);
  });

  it('an end is a time or a length, not both', () => {
    expect(incidentEnd.safeParse({ version: 1, time: '09:45', seconds: null }).success).toBe(true);
    expect(incidentEnd.safeParse({ version: 1, time: '09:45', seconds: 60 }).success).toBe(false);
  });

  it('a count may be none, takes time to watch, and lasts no longer than that', () => {
    const count = {
      ...{ id: id(), on: '2026-11-24', time: '09:30', observerId: id(), behaviorId: id() },
      part: null,
      note: '',
    };
    const messageOf = (changes: object) =>
      countsInput.safeParse({ counts: [{ ...count, minutes: 30, count: 0, seconds: null, ...changes }] }).error
        ?.issues[0]?.message;
    expect(messageOf({})).toBeUndefined();
    expect(messageOf({ minutes: 0 })).toBe('Say how long you watched.');
    expect(messageOf({ count: -1 })).toBe('A count cannot be below nothing.');
    expect(messageOf({ seconds: 1801 })).toBe('It cannot have lasted longer than you watched.');
    expect(countsInput.safeParse({ counts: [] }).error?.issues[0]?.message).toContain('none occurred');
  });

  it('a change says what and from when', () => {
    expect(phaseInput.safeParse({ id: id(), label: ' ', startsOn: '2026-11-24' }).success).toBe(false);
    expect(phaseInput.parse({ id: id(), label: 'Ear defenders', startsOn: '2026-10-20' }).behaviorId).toBeNull();
  });
});

describe('sentences', () => {
  const said = {
    ...{
      behaviors: ['leaves the bench', 'shouts'],
      antecedents: ['A tool started', 'Asked to begin'],
      consequences: ['A break'],
    },
    ...{ functions: ['escape'], seconds: 240, isGoing: false, resolved: true, resolvedAfter: 360 },
    intensity: { name: '2', words: 'others look up' },
  };

  it('say an ABC incident whole, and of one that says little no more than that', () => {
    expect(incidentSentence(said)).toBe(
      'Leaves the bench and shouts. Before: “A tool started” and “Asked to begin”. Then: “A break”. It lasted 4 min. ' +
        'Intensity: 2, others look up. It was resolved after 6 min. It may have been for escape; that is a guess.',
    );
    const bare = {
      ...said,
      antecedents: [],
      consequences: [],
      functions: [],
      seconds: null,
      resolved: null,
      intensity: null,
    };
    expect(incidentSentence(bare)).toBe('Leaves the bench and shouts.');
    expect(incidentSentence({ ...bare, isGoing: true, resolved: false, resolvedAfter: null })).toBe(
      'Leaves the bench and shouts. How long it lasted has not been said. It was not resolved.',
    );
  });

  it('say a count with its time, and none as none', () => {
    const count = { behavior: 'Calls out', count: 0, minutes: 45, seconds: null, part: 'Lunch' };
    expect(countSentence(count)).toBe('Calls out: none in 45 min observed (Lunch).');
    expect(countSentence({ ...count, count: 1, seconds: 90, part: null })).toBe(
      'Calls out: 1 time, 1 min 30 s altogether, in 45 min observed.',
    );
  });
});
