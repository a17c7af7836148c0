import type { SourceLines } from '../report.js';
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

  peek(ahead = 0): SqlToken | undefined {
    return this.tokens[this.at + ahead];
  }

  next(): SqlToken | undefined {
    return this.tokens[this.at++];
  }

  /** Takes words in a row, or none of them. */
  take(...words: readonly string[]): boolean {
    const all = words.every((word, ahead) => this.peek(ahead)?.word === word);
    if (all) this.at += words.length;
    return all;
  }

  takeMark(text: string): boolean {
    const token = this.peek();
    if (token?.kind !== 'mark' || token.text !== text) return false;
    this.at++;
    return true;
  }

  /** An identifier, of which the part behind the last dot counts; `null` where there is none. */
  identifier(): string | null {
    let name: string | null = null;
    do {
      const token = this.peek();
      if (token?.kind !== 'word' && token?.kind !== 'name') return name;
      name = token.text;
      this.at++;
    } while (this.takeMark('.'));
    return name;
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
    if (token.kind === 'mark' && token.text === '(') depth++;
    if (token.kind === 'mark' && token.text === ')') depth--;
    if (depth === 0 && token.kind === 'mark' && token.text === ',') {
      parts.push(current);
      current = [];
    } else current.push(token);
  }
  if (current.length > 0) parts.push(current);
  return parts;
}

export const textOf = (tokens: readonly SqlToken[]): string =>
  tokens.map((token) => (token.kind === 'string' ? `'${token.text}'` : token.text)).join(' ');
