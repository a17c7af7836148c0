import type { Diagnostic, DiagnosticCode, Fix, TextRange } from './diagnostics.js';
import type { Token, TokenLine } from './tokens.js';

/** Marks as a message names them; words stand as they are. */
const MARK_NAMES: Readonly<Record<string, string>> = {
  ':': 'a colon',
  '(': 'an opening parenthesis',
  ')': 'a closing parenthesis',
  ',': 'a comma',
  '->': 'an arrow, ->',
  '..': 'two dots, as in 1..80',
};

/** Guessing compares with all that might be meant; behind so many mistakes nothing is guessed. */
export const MOST_GUESSED = 200;

const NONE = (): readonly Fix[] => [];

/**
 * Walks the tokens of one line. A method that does not find what it wants reports a diagnostic and
 * returns `null`; the caller gives up the smallest piece it can.
 */
export class LineReader {
  private position = 0;

  constructor(
    private readonly line: TokenLine,
    private readonly end: TextRange,
    private readonly diagnostics: Diagnostic[],
  ) {}

  peek(ahead = 0): Token | null {
    return this.line.tokens[this.position + ahead] ?? null;
  }

  /** Every token of the line, whatever was taken of it. */
  all(): readonly Token[] {
    return this.line.tokens;
  }

  /** The token that was taken last. */
  last(): Token | null {
    return this.line.tokens[this.position - 1] ?? null;
  }

  next(): Token | null {
    const token = this.peek();
    if (token !== null) this.position++;
    return token;
  }

  /** Takes the next token when it is this word or mark. */
  take(text: string): boolean {
    const token = this.peek();
    if (token === null || token.kind === 'string' || token.text !== text) return false;
    this.position++;
    return true;
  }

  /** Takes several words in a row, or none of them. */
  takeWords(...texts: string[]): boolean {
    const all = texts.every((text, ahead) => {
      const token = this.peek(ahead);
      return token?.kind === 'word' && token.text === text;
    });
    if (all) this.position += texts.length;
    return all;
  }

  word(expected: string, fixes: () => readonly Fix[] = NONE): Extract<Token, { kind: 'word' }> | null {
    const token = this.peek();
    if (token?.kind === 'word') {
      this.position++;
      return token;
    }
    this.expected(expected, fixes);
    return null;
  }

  expect(text: string, fixes: () => readonly Fix[] = NONE): boolean {
    if (this.take(text)) return true;
    this.expected(MARK_NAMES[text] ?? text, fixes);
    return false;
  }

  /** The quoted text at the end of the statement, if there is one. */
  description(): string | null {
    const token = this.peek();
    if (token?.kind !== 'string' || this.peek(1) !== null) return null;
    this.position++;
    return token.value;
  }

  finish(fixes: () => readonly Fix[] = NONE): void {
    const token = this.peek();
    if (token === null) return;
    this.report('syntax.extra', `The statement ends before ${token.text}.`, token.place, this.guessed(fixes));
    this.position = this.line.tokens.length;
  }

  /** Passes over everything up to the next comma outside parentheses. */
  skipToComma(): void {
    let depth = 0;
    for (let token = this.peek(); token !== null; token = this.peek()) {
      if (depth === 0 && token.text === ',' && token.kind === 'mark') return;
      if (token.kind === 'mark' && token.text === '(') depth++;
      if (token.kind === 'mark' && token.text === ')') depth--;
      this.position++;
    }
  }

  expected(what: string, fixes: () => readonly Fix[] = NONE): void {
    const token = this.peek();
    const found = token === null ? 'the line ends' : `found ${token.text}`;
    this.report(
      'syntax.expected',
      `Expected ${what}; ${found}.`,
      token?.place ?? this.end,
      this.guessed(fixes),
    );
  }

  report(code: DiagnosticCode, message: string, place: TextRange, fixes: readonly Fix[] = []): void {
    this.diagnostics.push({ code, message, place, fixes });
  }

  /** What may have been meant; a text with so many mistakes is no slip, and is not guessed at. */
  guessed(fixes: () => readonly Fix[]): readonly Fix[] {
    return this.mayGuess ? fixes() : [];
  }

  get mayGuess(): boolean {
    return this.diagnostics.length < MOST_GUESSED;
  }

  here(): TextRange {
    return this.peek()?.place ?? this.end;
  }
}
