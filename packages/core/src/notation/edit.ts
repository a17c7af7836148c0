import type { StatementPlace } from './statementPlace.js';
import { tokenize } from './tokens.js';

/**
 * Edits of single statements in a text. Everything else, comments and order included, stays byte for byte.
 * Lines count from 1.
 */

/** Puts other words in the place of a statement; its indentation and a comment behind it stay. */
export function replaceStatement(text: string, { line }: StatementPlace, statement: string): string {
  const lines = text.split('\n');
  const source = lines[line - 1] ?? '';
  const indent = /^\s*/.exec(source)?.[0] ?? '';
  const { comment } = tokenize(source, line);
  lines[line - 1] = `${indent}${statement}${comment === null ? '' : `  # ${comment}`}`;
  return lines.join('\n');
}

/** Takes a statement out, with everything indented below it and the comments that stand directly above it. */
export function removeStatement(text: string, { line, endLine }: StatementPlace): string {
  const lines = text.split('\n');
  let first = line - 1;
  while (first > 0 && /^\s*#/.test(lines[first - 1] ?? '')) first--;
  lines.splice(first, endLine - first);
  const doubled = lines[first]?.trim() === '' && (first === 0 || lines[first - 1]?.trim() === '');
  if (doubled) lines.splice(first, 1);
  return lines.join('\n');
}

/** Puts lines under a statement, indented by two spaces more than it. */
export function insertBelow(
  text: string,
  { line, endLine }: StatementPlace,
  statements: readonly string[],
): string {
  const lines = text.split('\n');
  const indent = /^\s*/.exec(lines[line - 1] ?? '')?.[0] ?? '';
  const added = statements.map((statement) => `${indent}  ${statement}`);
  return [...lines.slice(0, endLine), ...added, ...lines.slice(endLine)].join('\n');
}

/** Puts a statement at the end; blocks are set apart by an empty line, sentences stand together. */
export function append(text: string, statement: string): string {
  const trimmed = text.trimEnd();
  if (trimmed === '') return `${statement}\n`;
  const lastLine = trimmed.slice(trimmed.lastIndexOf('\n') + 1);
  const together = statement.startsWith('each ') && lastLine.startsWith('each ');
  return `${trimmed}\n${together ? '' : '\n'}${statement}\n`;
}
