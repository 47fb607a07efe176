import { expect, it } from 'vitest';
import { typedNumber } from './typed-number';

it('reads a number as it is typed, with a comma or a dot, and nothing else', () => {
  const typed = ['12', ' 1,5 ', '1.5', '-3', '0', '', 'a lot', '1e9', '12.', '1,5,5', '1234567890', '0.1234'];
  expect(typed.map(typedNumber)).toEqual([12, 1.5, 1.5, -3, 0, null, null, null, null, null, null, null]);
});
