import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import ts from 'typescript';

const root = join(import.meta.dirname, '../../../..');
const FOLDERS = ['packages/core/src', 'packages/api/src', 'apps/server/src', 'apps/web/src'];

/** Words that only their authors knew, in docs/glossary.md with what they are called now. */
const RETIRED = readFileSync(join(root, 'docs/glossary.md'), 'utf8')
  .split('\n')
  .flatMap((line) => /^\| `([^|]+)` \| `/.exec(line)?.[1]?.split('`, `') ?? []);

/** What a word may be called that is retired elsewhere: names of migrations never change. */
const KEPT = /^Trouble1795000000007$/;

interface Exported {
  readonly name: string;
  readonly file: string;
}

function* sourceFiles(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { recursive: true, withFileTypes: true }))
    if (entry.isFile() && /\.tsx?$/.test(entry.name)) yield join(entry.parentPath, entry.name);
}

/** What a file declares and exports; names that it only hands on are those of others. */
function exportsOf(file: string): readonly Exported[] {
  const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest);
  const names: string[] = [];
  for (const statement of source.statements) {
    const isExported =
      ts.canHaveModifiers(statement) &&
      ts.getModifiers(statement)?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword) === true;
    if (!isExported) continue;
    if (ts.isVariableStatement(statement)) {
      for (const { name } of statement.declarationList.declarations)
        if (ts.isIdentifier(name)) names.push(name.text);
    } else if (
      ts.isInterfaceDeclaration(statement) ||
      ts.isTypeAliasDeclaration(statement) ||
      ts.isClassDeclaration(statement) ||
      ts.isFunctionDeclaration(statement)
    ) {
      if (statement.name !== undefined) names.push(statement.name.text);
    }
  }
  return names.map((name) => ({ name, file: relative(root, file) }));
}

const all = FOLDERS.flatMap((folder) => [...sourceFiles(join(root, folder))].flatMap(exportsOf));

/** The words of a name in camelCase, in lower case. */
const wordsOf = (name: string): readonly string[] =>
  (name.match(/[A-Z]?[a-z]+|[A-Z]+(?![a-z])/g) ?? []).map((word) => word.toLowerCase());

describe('exported names', () => {
  test('are many, and the glossary is read', () => {
    expect(all.length).toBeGreaterThan(900);
    expect(RETIRED.length).toBeGreaterThan(60);
    expect(RETIRED).toContain('Deriving');
  });

  test('are words of the trade: none that is retired is left', () => {
    const retired = new Set(RETIRED);
    const singleWords = new Set(
      RETIRED.filter((name) => /^[A-Z][a-z]+$/.test(name)).map((name) => name.toLowerCase()),
    );
    const left = all.filter(
      ({ name }) =>
        !KEPT.test(name) &&
        (retired.has(name) || (wordsOf(name).length === 1 && singleWords.has(name.toLowerCase()))),
    );
    expect(left).toEqual([]);
  });

  test('mean one thing: no two modules declare the same', () => {
    const files = new Map<string, string[]>();
    for (const { name, file } of all) files.set(name, [...(files.get(name) ?? []), file]);
    expect([...files].filter(([, where]) => where.length > 1)).toEqual([]);
  });
});
