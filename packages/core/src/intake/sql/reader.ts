import type { SourceLines } from '../lines.js';
import type { SqlName } from './schema.js';
import type { SqlToken } from './tokens.js';

/** Walks the tokens of one statement. */
export class SqlReader {
  private at = 0;

  constructor(private readonly tokens: readonly SqlToken[]) {}

  get done(): boolean {
    return this.at >= this.tokens.length;
  }

  /** The lines over which all its tokens stand. */
  get lines(): SourceLines {
    const line = this.tokens[0]?.line ?? 1;
    return { line, endLine: this.tokens.at(-1)?.endLine ?? line };
  }

  /** The lines from the token that stands here to the last one that was read before `end`. */
  linesTo(end: SqlToken | undefined): SourceLines {
    const line = this.peek()?.line ?? this.lines.endLine;
    return { line, endLine: Math.max(line, end?.endLine ?? line) };
  }

  peek(ahead = 0): SqlToken | undefined {
    return this.tokens[this.at + ahead];
  }

  next(): SqlToken | undefined {
    return this.tokens[this.at++];
  }

  /** Everything that is left. */
  rest(): readonly SqlToken[] {
    const rest = this.tokens.slice(this.at);
    this.at = this.tokens.length;
    return rest;
  }

  /** Takes words in a row, or none of them. */
  take(...words: readonly string[]): boolean {
    const all = words.every((word, ahead) => this.peek(ahead)?.word === word);
    if (all) this.at += words.length;
    return all;
  }

  /** Takes one of some words. */
  takeOne(...words: readonly string[]): boolean {
    return words.some((word) => this.take(word));
  }

  takeMark(text: string): boolean {
    if (!this.isMark(text)) return false;
    this.at++;
    return true;
  }

  isMark(text: string, ahead = 0): boolean {
    const token = this.peek(ahead);
    return token?.kind === 'mark' && token.text === text;
  }

  /** An identifier, of which the part behind the last dot counts; `null` where there is none. */
  identifier(): string | null {
    return this.path().at(-1) ?? null;
  }

  /** An identifier in all its parts; empty where there is none. */
  path(): readonly string[] {
    const parts: string[] = [];
    do {
      const token = this.peek();
      if (token?.kind !== 'word' && token?.kind !== 'name') return parts;
      parts.push(token.text);
      this.at++;
    } while (this.takeMark('.'));
    return parts;
  }

  /** The name of a table or a type, with its schema where one is said. */
  name(): SqlName | null {
    const parts = this.path();
    const name = parts.at(-1);
    return name === undefined ? null : { schema: parts.at(-2) ?? null, name };
  }

  /** The tokens inside the parentheses that open here, however deep; empty where none do. */
  parenthesised(): readonly SqlToken[] {
    if (!this.takeMark('(')) return [];
    const start = this.at;
    let depth = 1;
    while (!this.done && depth > 0) {
      const token = this.next();
      if (token?.kind !== 'mark') continue;
      if (token.text === '(') depth++;
      else if (token.text === ')') depth--;
    }
    return this.tokens.slice(start, depth === 0 ? this.at - 1 : this.at);
  }

  /** Names in parentheses, as in a key: lengths and directions behind them are passed over. */
  names(): readonly string[] {
    return splitAtCommas(this.parenthesised()).flatMap(([first]) =>
      first?.kind === 'word' || first?.kind === 'name' ? [first.text] : [],
    );
  }
}

/** The parts of a list between commas outside parentheses. */
export function splitAtCommas(tokens: readonly SqlToken[]): readonly (readonly SqlToken[])[] {
  const parts: SqlToken[][] = [];
  let current: SqlToken[] = [];
  let depth = 0;
  for (const token of tokens) {
    if (token.kind === 'mark') {
      if (token.text === '(' || token.text === '[') depth++;
      if (token.text === ')' || token.text === ']') depth--;
    }
    if (depth === 0 && token.kind === 'mark' && token.text === ',') {
      parts.push(current);
      current = [];
    } else current.push(token);
  }
  if (current.length > 0) parts.push(current);
  return parts;
}

/** The words of a comment; an empty one is none. */
export const commentIn = (token: SqlToken | undefined): string | null =>
  token?.kind === 'string' && token.text !== '' ? token.text : null;

export const textOf = (tokens: readonly SqlToken[]): string =>
  tokens.map((token) => (token.kind === 'string' ? `'${token.text}'` : token.text)).join(' ');
