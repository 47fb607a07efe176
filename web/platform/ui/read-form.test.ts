import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { roundInput } from '~/core/entries/rounds/round-input';
import { goalInput } from '~/core/goals/goal-input';
import { measureDefinition } from '~/core/measures/measure';
import { readForm, readValue } from './read-form';

const schema = z.object({
  amount: z.number({ error: 'A number, please.' }).nullable().default(null),
  isOn: z.boolean().default(true),
  note: z.string().default(''),
});
const read = (fields: Record<string, string>) => {
  const form = new FormData();
  for (const [name, text] of Object.entries(fields)) form.append(name, text);
  return readForm(form, schema);
};

describe('a form', () => {
  it('reads decimal points and commas, and answers of both kinds', () => {
    expect(read({ amount: '1,5', isOn: 'off' })).toMatchObject({ value: { amount: 1.5, isOn: false } });
    expect(read({ amount: ' 0.25 ', isOn: 'on' })).toMatchObject({ value: { amount: 0.25, isOn: true } });
  });

  it('tells a blank from a zero, and a text from a number', () => {
    expect(read({ amount: '' })).toMatchObject({ value: { amount: null, isOn: true, note: '' } });
    expect(read({ amount: '0' })).toMatchObject({ value: { amount: 0 } });
    expect(read({ amount: 'three' })).toMatchObject({ status: 'error', error: { amount: ['A number, please.'] } });
  });

  it('takes one ticked box of several for a list', () => {
    const id = '7f0f2c1e-5a0f-4d0c-8a43-222222222222';
    const form = new FormData();
    for (const [name, text] of [
      ['id', id],
      ['name', 'Monday kitchen'],
      ['weekday', ''],
      ['startsAt', ''],
    ]) {
      form.append(name as string, text as string);
    }
    expect(readForm(form, roundInput).status).toBe('error');
    form.append('goalIds', id);
    expect(readForm(form, roundInput)).toMatchObject({ value: { goalIds: [id], weekday: null, startsAt: null } });
  });

  it('reads a measure as it stands in a form, and nothing of one that is not complete', () => {
    const measure = { kind: 'oralReading', seconds: '60' };
    expect(readValue(measure, measureDefinition)).toEqual({ kind: 'oralReading', seconds: 60, passages: 'together' });
    expect(readValue({ kind: 'intervalRecording', method: 'whole', seconds: '' }, measureDefinition)).toBeNull();
    expect(readValue(undefined, goalInput)).toBeNull();
  });
});
