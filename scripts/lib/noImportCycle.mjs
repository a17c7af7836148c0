// A rule for ESLint: no module reaches itself by relative imports, those of types included.
import { existsSync, readFileSync, statSync } from 'node:fs';
import { dirname, resolve } from 'node:path';

const IMPORTS = /(?:^|[;}\n])\s*(?:import|export)\b[^;'"]*?(?:from\s*)?['"](\.{1,2}\/[^'"]+)['"]/g;

/** What each file imports, as it was when it was last written. */
const known = new Map();

function importsOf(file) {
  const { mtimeMs } = statSync(file);
  const before = known.get(file);
  if (before?.mtimeMs === mtimeMs) return before.imports;
  const imports = [...readFileSync(file, 'utf8').matchAll(IMPORTS)].flatMap(
    ([, path]) => fileOf(file, path) ?? [],
  );
  known.set(file, { mtimeMs, imports });
  return imports;
}

function fileOf(from, path) {
  const base = resolve(dirname(from), path).replace(/\.js$/, '');
  return [`${base}.ts`, `${base}.tsx`].find(existsSync) ?? null;
}

/** The way from a file back to another one; `null` where there is none. */
function wayBack(start, goal) {
  const from = new Map([[start, null]]);
  const waiting = [start];
  for (let file = waiting.pop(); file !== undefined; file = waiting.pop()) {
    if (file === goal) {
      const way = [];
      for (let step = file; step !== null; step = from.get(step)) way.unshift(step);
      return way;
    }
    for (const next of importsOf(file)) {
      if (from.has(next)) continue;
      from.set(next, file);
      waiting.push(next);
    }
  }
  return null;
}

const short = (file) => file.replace(/^.*\/src\//, '');

export const noImportCycle = {
  meta: { type: 'problem', schema: [] },
  create: (context) => {
    const check = (node) => {
      const path = node.source?.value;
      if (typeof path !== 'string' || !path.startsWith('.')) return;
      const imported = fileOf(context.filename, path);
      const way = imported === null ? null : wayBack(imported, context.filename);
      if (way !== null)
        context.report({
          node,
          message: `It is imported from there in turn: ${way.map(short).join(' → ')}.`,
        });
    };
    return { ImportDeclaration: check, ExportNamedDeclaration: check, ExportAllDeclaration: check };
  },
};
