import type { SqlLexing } from './dialect.js';

/** A token of SQL. Quoted identifiers are `name`, words are upper-cased in `word`. */
export interface SqlToken {
  readonly kind: 'word' | 'name' | 'string' | 'number' | 'mark';
  /** The text as it means: without quotes, escapes undone. */
  readonly text: string;
  /** The word in upper case; the empty text for other kinds. */
  readonly word: string;
  readonly line: number;
  readonly endLine: number;
  /** Of a text that is digits: what they are digits of. */
  readonly digits?: SqlDigits;
}

export type SqlDigits = 'hexadecimal' | 'binary';

const SPACE = /\s+/y;
const NUMBER = /0[xX][0-9A-Fa-f]+(?![\w$])|(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?(?![\w$\u0080-\uffff])/y;
/** MariaDB's names may begin with a digit. */
const WORD = /[A-Za-z_\u0080-\uffff\d][\w$\u0080-\uffff]*/y;
const DOLLAR = /\$(?:[A-Za-z_\u0080-\uffff][\w\u0080-\uffff]*)?\$/y;
/** A name in brackets is short, so that a text full of brackets is read in one pass all the same. */
const BRACKETED = /\[[A-Za-z_][^\][\n]{0,127}\]/y;
/** What stands before the quote of a text: escapes, bits, hexadecimal digits, national or named characters. */
const PREFIXED = /(?:[EeBbXxNn]|_[A-Za-z0-9]+\s*|[Uu]&)'/y;
const DIGITS: Readonly<Record<string, SqlDigits>> = { x: 'hexadecimal', b: 'binary' };
const CONDITIONAL = /\/\*M?!\d*/y;
/** What a comment begins or ends with. */
const BEFORE_TOKENS: ReadonlySet<string> = new Set('-#/*');
/** What is always a token of its own. */
const MARKS: ReadonlySet<string> = new Set('(),;=<>+%|&!?@^~{}]');
const BACKSLASH = '\\';

/** So many dollar quotes without an end are looked for; a source full of them has none. */
const MOST_UNENDED = 20;

/** Something that has a beginning and no end. */
export interface Unended {
  readonly what: 'text' | 'name' | 'comment';
  readonly line: number;
}

/** Reads tokens from a source one by one, and knows where it is. One pass; nothing is ever refused. */
export class SqlScanner {
  at = 0;
  line = 1;
  /** What ends a statement; no word goes beyond it. */
  delimiter = ';';
  readonly unended: Unended[] = [];
  /** Where the line ends that it is in. */
  private lineEnd: number;
  private isConditional = false;
  private unendedDollars = 0;

  constructor(
    readonly source: string,
    private readonly lexing: SqlLexing,
  ) {
    this.lineEnd = this.endOfLine(0);
  }

  get done(): boolean {
    return this.at >= this.source.length;
  }

  /** Whether nothing but space stands before it in its line. */
  get isAtLineStart(): boolean {
    for (let before = this.at - 1; before >= 0; before--) {
      const char = this.source[before];
      if (char === '\n') return true;
      if (char !== ' ' && char !== '\t' && char !== '\r') return false;
    }
    return true;
  }

  /** Passes over space and comments. */
  skipSpace(): void {
    while (!this.done) {
      // Most tokens begin with a letter or are a mark, and no comment does.
      if (!BEFORE_TOKENS.has(this.source.charAt(this.at)) && !this.isSpace()) return;
      const length = this.matchAt(SPACE).length;
      if (length > 0) this.move(length);
      else if (!this.skipComment()) return;
    }
  }

  private isSpace(): boolean {
    const code = this.source.charCodeAt(this.at);
    return code <= 32 || code >= 0xa0;
  }

  /** The rest of the line, which is passed over with its end. */
  takeLine(): string {
    const end = this.source.indexOf('\n', this.at);
    const text = this.source.slice(this.at, end === -1 ? undefined : end);
    this.move(end === -1 ? this.source.length - this.at : text.length + 1);
    return text;
  }

  /** Passes over so many characters. */
  move(length: number): void {
    this.at += length;
    while (this.lineEnd < this.at) {
      this.line++;
      this.lineEnd = this.endOfLine(this.lineEnd + 1);
    }
  }

  /** Goes back to where it was before. */
  returnTo(at: number, line: number): void {
    this.at = at;
    this.line = line;
    this.lineEnd = this.endOfLine(at);
  }

  private endOfLine(from: number): number {
    const end = this.source.indexOf('\n', from);
    return end === -1 ? Infinity : end;
  }

  /** The token that stands here; space before it was passed over. */
  next(): SqlToken {
    const { line } = this;
    const { kind, text, digits } = this.tokenHere();
    const token = { kind, text, word: kind === 'word' ? text.toUpperCase() : '', line, endLine: this.line };
    return digits === undefined ? token : { ...token, digits };
  }

  private tokenHere(): Pick<SqlToken, 'kind' | 'text' | 'digits'> {
    const first = this.source.charAt(this.at);
    if (MARKS.has(first)) return this.took('mark', first);
    if (first === "'") return { kind: 'string', text: this.quoted(this.lexing.hasEscapes) };
    const prefix = this.matchAt(PREFIXED);
    if (prefix !== '') {
      this.move(prefix.length - 1);
      const digits = DIGITS[prefix.slice(0, -1).toLowerCase()];
      const text = this.quoted(this.lexing.hasEscapes || /^e/i.test(prefix));
      return { kind: 'string', text, ...(digits === undefined ? {} : { digits }) };
    }
    if (first === '`') return { kind: 'name', text: this.quoted(false) };
    if (first === '"')
      return this.lexing.hasQuotedNames
        ? { kind: 'name', text: this.quoted(false) }
        : { kind: 'string', text: this.quoted(true) };
    if (first === '$' && this.lexing.dialect === 'postgresql') {
      const text = this.dollarQuoted();
      if (text !== null) return { kind: 'string', text };
    }
    const number = this.matchAt(NUMBER);
    if (number !== '') return this.took('number', number);
    const word = this.matchAt(WORD);
    const ended = word.indexOf(this.delimiter);
    if (word !== '') return this.took('word', ended > 0 ? word.slice(0, ended) : word);
    const bracketed = this.lexing.dialect === 'mariadb' ? this.matchAt(BRACKETED) : '';
    if (bracketed !== '') {
      this.move(bracketed.length);
      return { kind: 'name', text: bracketed.slice(1, -1) };
    }
    return this.took('mark', this.source.startsWith('::', this.at) ? '::' : first);
  }

  private took(kind: 'word' | 'number' | 'mark', text: string): Pick<SqlToken, 'kind' | 'text'> {
    this.move(text.length);
    return { kind, text };
  }

  private matchAt(pattern: RegExp): string {
    pattern.lastIndex = this.at;
    return pattern.exec(this.source)?.[0] ?? '';
  }

  private skipComment(): boolean {
    const { source, at } = this;
    const isMariaDb = this.lexing.dialect === 'mariadb';
    // In MariaDB two minus signs are a comment only before space (they may be arithmetic).
    const isDashes = source.startsWith('--', at) && (!isMariaDb || /[\s]|^$/.test(source.charAt(at + 2)));
    if (isDashes || (isMariaDb && source[at] === '#')) {
      this.takeLine();
      return true;
    }
    // What only some versions of the server run is run by all of today.
    const conditional = isMariaDb ? this.matchAt(CONDITIONAL) : '';
    if (conditional !== '') {
      this.isConditional = true;
      this.move(conditional.length);
      return true;
    }
    if (this.isConditional && source.startsWith('*/', at)) {
      this.isConditional = false;
      this.move(2);
      return true;
    }
    if (!source.startsWith('/*', at)) return false;
    this.move(this.commentLength());
    return true;
  }

  /** Comments of PostgreSQL stand in each other. */
  private commentLength(): number {
    const { source, at } = this;
    const mark = /\/\*|\*\//g;
    mark.lastIndex = at;
    let depth = 0;
    for (let found = mark.exec(source); found !== null; found = mark.exec(source)) {
      if (found[0] === '*/') depth--;
      else if (depth === 0 || this.lexing.dialect === 'postgresql') depth++;
      if (depth === 0) return mark.lastIndex - at;
    }
    this.unended.push({ what: 'comment', line: this.line });
    return source.length - at;
  }

  /** What the quotes that begin here enclose, escapes undone; a quote stands in it doubled. */
  private quoted(hasEscapes: boolean): string {
    const { source, at, line } = this;
    const quote = source.charAt(at);
    let text = '';
    let from = at + 1;
    for (let end = from; end < source.length; end++) {
      const char = source[end];
      if (hasEscapes && char === BACKSLASH) {
        text += source.slice(from, end) + unescaped(source.charAt(end + 1));
        from = end + 2;
        end++;
      } else if (char === quote) {
        text += source.slice(from, end);
        if (source[end + 1] !== quote) {
          this.move(end + 1 - at);
          return text;
        }
        text += quote;
        from = end + 2;
        end++;
      }
    }
    this.unended.push({ what: quote === "'" ? 'text' : 'name', line });
    this.move(source.length - at);
    return text + source.slice(from);
  }

  private dollarQuoted(): string | null {
    const tag = this.matchAt(DOLLAR);
    if (tag === '' || this.unendedDollars >= MOST_UNENDED) return null;
    const end = this.source.indexOf(tag, this.at + tag.length);
    if (end === -1) {
      this.unendedDollars++;
      this.unended.push({ what: 'text', line: this.line });
      return null;
    }
    const text = this.source.slice(this.at + tag.length, end);
    this.move(end + tag.length - this.at);
    return text;
  }
}

const ESCAPES: Readonly<Record<string, string>> = {
  n: '\n',
  t: '\t',
  r: '\r',
  b: '\b',
  0: '\0',
  Z: '\u001a',
};

const unescaped = (char: string): string => (Object.hasOwn(ESCAPES, char) ? (ESCAPES[char] ?? char) : char);
