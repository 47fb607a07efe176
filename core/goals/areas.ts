/** Areas that goals are often set in; common practice, and a school may use its own. */
export const usualAreas = [
  'Reading',
  'Writing',
  'Mathematics',
  'Communication',
  'Social',
  'Behavior',
  'Self-care',
  'Work',
];
