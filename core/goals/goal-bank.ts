import { usualCriterion } from '../measures/criterion-definition';
import { beginningOf } from '../measures/measure';
import { usualLevels } from '../measures/support-levels';
import { type GoalTemplate, goalTemplate } from './goal-input';

const list = (stem: string, labels: string[]) => labels.map((label, i) => ({ key: `${stem}${i + 1}`, label }));

/** The goals that come with the product, one for each way of measuring: our own wording, to be changed. */
export const goalBank: GoalTemplate[] = [
  {
    name: 'Asks before borrowing',
    area: 'Communication',
    wording:
      'When {name} needs a tool that someone else holds, {name} will ask for it with at most a gesture, 8 of 10 times.',
    measure: {
      kind: 'trials',
      levels: usualLevels,
      mostSupport: 'gesture',
      planned: 10,
      opportunity: { one: 'request', many: 'requests' },
    },
    criterion: usualCriterion('atLeast', 80),
  },
  {
    name: 'Reads the labels',
    area: 'Reading',
    wording: '{name} will read the six labels on the seed drawers, 5 of 6 right in 3 of the last 4 checks.',
    measure: {
      ...beginningOf('itemCheck'),
      items: list('item', ['beans', 'carrot', 'basil', 'onion', 'lettuce', 'pumpkin']),
      item: { one: 'label', many: 'labels' },
    },
    criterion: usualCriterion('atLeast', 83),
  },
  {
    name: 'Joins in',
    area: 'Social',
    wording: 'In the morning circle {name} will add something of their own at least 3 times an hour.',
    measure: { ...beginningOf('frequency'), counted: { one: 'remark', many: 'remarks' } },
    criterion: usualCriterion('atLeast', 3),
  },
  {
    name: 'Keeps at it',
    area: 'Work',
    wording: '{name} will stay with one task for at least 12 minutes in a work block.',
    measure: { ...beginningOf('duration'), of: 'episode', episode: { one: 'stretch', many: 'stretches' } },
    criterion: usualCriterion('atLeast', 12),
  },
  {
    name: 'Begins when asked',
    area: 'Work',
    wording: '{name} will begin the first step within 15 seconds of being asked.',
    measure: { ...beginningOf('latency'), cue: { one: 'request', many: 'requests' } },
    criterion: usualCriterion('atMost', 15),
  },
  {
    name: 'At work when looked at',
    area: 'Work',
    wording: 'When looked at once a minute over 20 minutes, {name} will be at work 16 of 20 times.',
    measure: beginningOf('intervalRecording'),
    criterion: usualCriterion('atLeast', 80),
  },
  {
    name: 'Finishes a piece with care',
    area: 'Workshop',
    wording: '{name} will finish a piece of work at 3 of 4 points or better on the workshop’s rubric.',
    measure: beginningOf('rubric'),
    criterion: usualCriterion('atLeast', 3),
  },
  {
    name: 'Hours in the garden',
    area: 'Garden',
    wording: 'Over the year {name} will work 40 hours in the garden.',
    measure: beginningOf('cumulativeTotal'),
    criterion: { ...usualCriterion('atLeast', 100), rule: { kind: 'inARow', n: 1 } },
  },
  {
    name: 'Washes up',
    area: 'Kitchen',
    wording: '{name} will wash up a bowl in six steps, each alone.',
    measure: {
      ...beginningOf('taskAnalysis'),
      steps: list('step', ['Water on', 'Soap', 'Inside', 'Outside', 'Rinse', 'To the rack']),
    },
    criterion: usualCriterion('atLeast', 100),
  },
  {
    name: 'Reads a recipe aloud',
    area: 'Reading',
    wording: '{name} will read a recipe aloud at 60 words correct per minute.',
    measure: beginningOf('oralReading'),
    criterion: usualCriterion('atLeast', 60),
  },
  {
    name: 'Digs a seed bed to depth',
    area: 'Garden',
    wording: '{name} will dig a seed bed to a mean depth of 25 cm, measured at three spots.',
    measure: { ...beginningOf('measurement'), reading: { one: 'spot', many: 'spots' } },
    criterion: { ...usualCriterion('atLeast', 25), minimumOpportunities: 3 },
  },
].map((template) => goalTemplate.parse(template));
