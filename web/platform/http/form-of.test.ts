import { describe, expect, it } from 'vitest';
import { formOf, isFieldName } from './form-of';

const plain = (body: string) =>
  new Request('http://here/x', {
    method: 'POST',
    body,
    headers: { 'Content-Type': 'application/x-www-form-urlencoded' },
  });
const statusOf = (request: Request) =>
  formOf(request).then(
    () => 200,
    (answer) => (answer as Response).status,
  );

describe('a form that arrives', () => {
  it.each([
    ['dayParts[199].weekdays[6]', true],
    ['measure.criteria[0].levels[3].words', true],
    ['', true],
    ['a[9999999]', false],
    ['a[1000].b', false],
    ['a.9999999', false],
    ['__proto__.isAdmin', false],
    ['a[__proto__]', false],
    ['constructor.prototype.x', false],
    ['a.b.c.d.e.f.g.h.i', false],
    ['a'.repeat(201), false],
  ])('has a field called %s: %s', (name, expected) => {
    expect(isFieldName(name)).toBe(expected);
  });

  it('is refused at once, in any encoding, when no form of ours sends it', async () => {
    expect(await statusOf(plain('a[9999999]=1'))).toBe(400);
    expect(await statusOf(plain('a%5B9999999%5D=1'))).toBe(400);
    expect(await statusOf(plain('__proto__[x]=1'))).toBe(400);
    expect(await statusOf(plain('a=1&'.repeat(5000)))).toBe(400);
    const parts = new FormData();
    parts.append('a[9999999]', '1');
    expect(await statusOf(new Request('http://here/x', { method: 'POST', body: parts }))).toBe(400);
    expect(await statusOf(new Request('http://here/x', { method: 'POST', body: 'no form' }))).toBe(400);
  });

  it('is read as it was sent otherwise', async () => {
    const form = await formOf(plain('note=a%00b+c&list[0]=1&list[1]=2'));
    expect([...form]).toEqual([
      ['note', 'a\0b c'],
      ['list[0]', '1'],
      ['list[1]', '2'],
    ]);
  });
});
