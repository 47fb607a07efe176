import { formOfWords } from './words'; /** More fields than the largest form of ours has: a school's timetable of 200 parts with their weekdays. */

const MOST_FIELDS = 4000;
/** Higher than any list in a form of ours can count. */
const HIGHEST_INDEX = 999;
/** `goals[2].criterion.levels[1].words` is as deep as it gets, with room to spare. */
const DEEPEST = 8;
const LONGEST_NAME = 200;
/** Names that would reach into what objects are made of. */
const RESERVED = new Set(['__proto__', 'constructor', 'prototype']);

const tooMuch = () =>
  new Response(formOfWords.thisFormCannotBeRead, {
    status: 400,
    headers: { 'Content-Type': 'text/plain; charset=utf-8' },
  });

/**
 * Whether a field's name can be one of a form of ours: neither a list longer than any, nor deeper, nor a way into an object's
 * prototype. To be asked before anything is built from the name.
 *
 * @example isFieldName('goals[2].note') // true
 * @example isFieldName('a[9999999]') // false
 * @example isFieldName('__proto__.x') // false
 */
export function isFieldName(name: string): boolean {
  if (name.length > LONGEST_NAME) return false;
  const parts = name.split(/[.[\]]+/).filter(Boolean);
  if (parts.length > DEEPEST || parts.some((part) => RESERVED.has(part))) return false;
  return parts.every((part) => !/^\d+$/.test(part) || Number(part) <= HIGHEST_INDEX);
}

/** How many fields a body of `a=1&b=2` has, without taking it apart. */
function fieldCount(body: string): number {
  let count = 1;
  for (let at = body.indexOf('&'); at >= 0 && count <= MOST_FIELDS; at = body.indexOf('&', at + 1)) count++;
  return count;
}

/**
 * The form that a request carries: the only way in which an action reads one. What no form of ours sends is refused here,
 * before a parser could build what its names ask for.
 *
 * @throws Response 400
 */
export async function formOf(request: Request): Promise<FormData> {
  const form = await rawForm(request).catch(() => {
    throw tooMuch();
  });
  let count = 0;
  for (const name of form.keys()) {
    count++;
    if (count > MOST_FIELDS || !isFieldName(name)) throw tooMuch();
  }
  return form;
}

async function rawForm(request: Request): Promise<FormData> {
  const isPlain = request.headers.get('Content-Type')?.startsWith('application/x-www-form-urlencoded');
  if (!isPlain) return request.formData();
  const body = await request.text();
  if (fieldCount(body) > MOST_FIELDS) throw tooMuch();
  const form = new FormData();
  for (const [name, value] of new URLSearchParams(body)) form.append(name, value);
  return form;
}
