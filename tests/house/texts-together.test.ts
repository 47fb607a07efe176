import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import { root, sourcesOf } from '~/scripts/docs/house';

/** Attributes of ours and of HTML that are read out or shown. */
const SHOWN = new Set([
  'label',
  'title',
  'aria-label',
  'placeholder',
  'marginName',
  'about',
  'legend',
  'caption',
  'none',
]);

/** Classes of a style, what search engines are told, a selector, the form of a date; and the product’s own name. */
const FOR_THE_MACHINE = /\b(border|rounded|grid|min-h)-|\bgrid\b|noindex|^button, a|^MMM d$|^Gentle Margin$/;

/** Where a text in quotes is for the machine: class names, addresses, imports and types, keys and drafts, errors of programmers, commands. */
function isNoText(node: ts.Node): boolean {
  if (ts.isImportDeclaration(node) || ts.isTypeNode(node)) return true;
  if (ts.isJsxAttribute(node))
    return /class|style|key|name|rel|media|viewBox|transform|sizes|content/i.test(node.name.getText());
  if (ts.isVariableDeclaration(node)) return /draftKey|class|look|button|shape/i.test(node.name.getText());
  if (ts.isThrowStatement(node)) return true;
  if (ts.isTemplateExpression(node))
    return node.head.text.startsWith('npm run') || node.head.text.startsWith('color-mix');
  return false;
}

/** The texts that a screen’s file holds itself, with their lines. */
function textsIn(path: string): string[] {
  const file = ts.createSourceFile(
    path,
    readFileSync(join(root, path), 'utf8'),
    ts.ScriptTarget.Latest,
    true,
    ts.ScriptKind.TSX,
  );
  const found: string[] = [];
  const note = (node: ts.Node, text: string) => {
    if (!/[A-Za-z]{2}/.test(text)) return;
    const { line } = file.getLineAndCharacterOfPosition(node.getStart());
    found.push(`${path}:${line + 1}: ${text.trim()}`);
  };
  const visit = (node: ts.Node): void => {
    if (ts.isJsxText(node)) note(node, node.text);
    if (isNoText(node)) return;
    if (ts.isStringLiteralLike(node) || ts.isTemplateHead(node) || ts.isTemplateMiddleOrTemplateTail(node)) {
      if (/[a-z]{2},? [a-z(“]|\. [A-Z]/i.test(node.text) && !FOR_THE_MACHINE.test(node.text)) note(node, node.text);
    }
    if (ts.isJsxAttribute(node) && node.initializer && ts.isStringLiteral(node.initializer)) {
      if (SHOWN.has(node.name.getText())) note(node, node.initializer.text);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

describe('the texts of a room', () => {
  it('stand together in its words.ts, so that they can be read in one go and translated', () => {
    const screens = [...sourcesOf('web')].filter((path) => path.endsWith('.tsx'));
    expect(screens.length).toBeGreaterThan(100);
    expect(screens.flatMap(textsIn)).toEqual([]);
  });
});
