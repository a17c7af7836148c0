import { writtenValue } from './readDefault.js';
import type { SqlCell } from './schema.js';
import type { SqlToken } from './tokens.js';

const DEFAULT: SqlCell = { kind: 'default' };
const OTHER: SqlCell = { kind: 'other' };

/** The cell that the tokens between two commas write. */
export function cellOf(tokens: readonly SqlToken[]): SqlCell {
  const [first, second] = tokens;
  if (first === undefined) return OTHER;
  if (second === undefined) {
    if (first.digits === 'hexadecimal') return { kind: 'bytes', digits: first.text };
    if (first.kind === 'number')
      return /^0x/i.test(first.text) ? { kind: 'bytes', digits: first.text.slice(2) } : first.text;
    if (first.kind === 'string') return first.text;
    if (first.word === 'NULL') return null;
    if (first.word === 'DEFAULT') return DEFAULT;
  }
  const value = writtenValue(tokens);
  switch (value?.kind) {
    case undefined:
      return null;
    case 'literal':
      return String(value.value);
    case 'now':
    case 'uuid':
      return { kind: value.kind };
    case 'other':
      return OTHER;
  }
}

const ESCAPES: Readonly<Record<string, string>> = { b: '\b', f: '\f', n: '\n', r: '\r', t: '\t', v: '\v' };

/** The cells of a line of COPY in its text format (PostgreSQL, COPY, File Formats). */
export const copiedCells = (line: string): readonly SqlCell[] =>
  line.split('\t').map((text) => (text === '\\N' ? null : unescaped(text)));

const unescaped = (text: string): string =>
  text.includes('\\')
    ? text.replace(
        /\\(?:x([0-9A-Fa-f]{1,2})|([0-7]{1,3})|([^]))/g,
        (_, hex?: string, octal?: string, char = '') => {
          if (hex !== undefined) return String.fromCharCode(parseInt(hex, 16));
          if (octal !== undefined) return String.fromCharCode(parseInt(octal, 8));
          return ESCAPES[char as string] ?? (char as string);
        },
      )
    : text;
