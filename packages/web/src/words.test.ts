import { describe, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

/** Words that the glossary (docs/words.md) has replaced, and what stands there now. They may not come back onto a screen or into a message. */
const RETIRED: readonly (readonly [RegExp, string])[] = [
  [/\bwish(es)?\b/i, 'target'],
  [/\baerials?\b(?! picture)/i, 'antenna'],
  [/\bmore tools\b/i, 'a room of its own'],
  // people next door may be asked; who transmits is a transmitter
  [/^neighbours$|neighbouring transmitters?|strong neighbours?/i, 'transmitter'],
  [/\bphantoms?\b/i, 'image or alias'],
];

const ROOTS = [
  'packages/web/src',
  'packages/core/src',
  'packages/contract/src',
  'packages/server/src',
  'packages/cli/src',
];
const TOP = fileURLToPath(new URL('../../../', import.meta.url));

function sources(folder: string): readonly string[] {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter(
      (one) =>
        one.isFile() && /\.tsx?$/.test(one.name) && !/\.test\.|testing|migrations/.test(join(one.parentPath, one.name)),
    )
    .map((one) => join(one.parentPath, one.name));
}

/** What a person can read: texts between tags and strings with a space, or with a capital first. Names of files, classes and fields are not. */
function readable(path: string): readonly string[] {
  const file = ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX);
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node)) return;
    const text =
      ts.isJsxText(node) ||
      ts.isStringLiteralLike(node) ||
      ts.isTemplateHead(node) ||
      ts.isTemplateMiddle(node) ||
      ts.isTemplateTail(node)
        ? node.text.trim()
        : '';
    if (/\s|^[A-Z]/.test(text)) found.push(text);
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

describe.each(ROOTS)('%s', (root) => {
  const texts = sources(join(TOP, root)).flatMap((path) =>
    readable(path).map((text) => `${path.slice(TOP.length)}: ${text}`),
  );
  test('has texts to look at', () => expect(texts.length).toBeGreaterThan(10));
  test.each(RETIRED)('says nothing like %s', (word, now) => {
    expect(
      texts.filter((text) => word.test(text.slice(text.indexOf(': ') + 2))).map((text) => `${text} → ${now}`),
    ).toEqual([]);
  });
});
