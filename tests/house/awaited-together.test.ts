// What is asked at the same time is waited for from the start: a promise that nobody waits for yet ends the process when it fails.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { expect, it } from 'vitest';
import { root, sourcesOf } from '~/scripts/docs/house';

/** Lines on which `Promise.all` is given a list that is not there before something else was waited for. */
function late(name: string, text: string): number[] {
  const file = ts.createSourceFile(name, text, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX);
  const lines: number[] = [];
  const waits = (node: ts.Node): boolean =>
    !ts.isFunctionLike(node) && (ts.isAwaitExpression(node) || (ts.forEachChild(node, waits) ?? false));
  const visit = (node: ts.Node): void => {
    if (ts.isCallExpression(node) && /^Promise\.(all|allSettled|race|any)$/.test(node.expression.getText())) {
      if (node.arguments.some(waits)) lines.push(file.getLineAndCharacterOfPosition(node.getStart()).line + 1);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return lines;
}

it('nothing is awaited in the midst of what is asked together', () => {
  expect(late('x.ts', 'await Promise.all([a(), b().then((c) => d(c))]);')).toEqual([]);
  expect(late('x.ts', 'await Promise.all(list.map(async (one) => { await one(); }));')).toEqual([]);
  expect(late('x.ts', '\nawait Promise.all([a(), is ? b(await c()) : null]);')).toEqual([2]);
  const found = ['core', 'server', 'web'].flatMap((floor) =>
    [...sourcesOf(floor)].flatMap((path) =>
      late(path, readFileSync(join(root, path), 'utf8')).map((line) => `${path}:${line}`),
    ),
  );
  expect(found).toEqual([]);
});
