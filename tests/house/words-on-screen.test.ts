import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { floors, root, sourcesOf } from '~/scripts/docs/house';

/** What is said no more on any screen, in any message, document or error; see docs/words.md. */
const retired: [phrase: RegExp, instead: string][] = [
  [/\bways? in(?:to)?\b(?! which)/i, 'share link'],
  [/\bmeasured anew\b/i, 'measurement changed'],
  [/what whom/i, 'what each reader sees'],
  [/record of reading/i, 'access log'],
  [/\blet it stand\b/i, 'keep the name'],
  [/\bWordings\b/, 'message templates'],
  [/\bthe post\b/i, 'messages'],
  [/\bcame back\b(?= to the sender)|'Came back'/, 'bounced'],
  [/\bshelf\b/i, 'goal bank'],
  [/running report/i, 'individual report'],
  [/lamplight/i, 'dark'],
  [/\b(?:on|above|below) course\b/i, 'the decision, against the aim line'],
  [/way travelled/i, 'progress toward the target'],
  [/\bbeads?\b/i, 'trial marks'],
  [/\btall(?:y|ies)\b/i, 'count'],
  [/'Not yet'(?=, words)|'No answer'|'Declined(?: the session)?'/, 'incorrect, no response, refused'],
  [/No chance came up/, 'no opportunity'],
  [/who changed most/i, 'changed most'],
  [/did it help/i, 'before and after'],
  [/\be-mail\b/i, 'email'],
  [/place not said/i, 'Location: choose'],
  [/\bABC notes?\b/, 'incident'],
  [/\btake(?:n)? away “/i, 'remove'],
  [/letters are told/i, 'capital letters matter'],
  [/Dear \{reader\}/, 'Hello'],
];

/** Addresses that lead on from their old names. */
const OLD_ADDRESSES = 'web/platform/http/moved.ts';

const withoutComments = (source: string) => source.replace(/\/\*[\s\S]*?\*\//g, '').replace(/^\s*\/\/.*$/gm, '');

describe('a word that is retired', () => {
  const sources = Object.keys(floors)
    .flatMap((floor) => [...sourcesOf(floor)])
    .filter((path) => path !== OLD_ADDRESSES && !path.includes('/migrations/'))
    .map((path) => ({ path, text: withoutComments(readFileSync(join(root, path), 'utf8')) }));

  it.each(retired)('%s is on no screen: it is “%s”', (phrase) => {
    const found = sources.flatMap(({ path, text }) => {
      const match = phrase.exec(text);
      return match ? [`${path}: …${text.slice(Math.max(0, match.index - 30), match.index + 40).trim()}…`] : [];
    });
    expect(found).toEqual([]);
  });
});
