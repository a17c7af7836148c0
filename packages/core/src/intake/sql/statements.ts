import { lexingOf, type SqlDialect } from './dialect.js';
import { SqlScanner, type SqlToken, type Unended } from './tokens.js';

/** One statement of a source, ended by itself. */
export type ScriptStatement =
  | { readonly kind: 'sql'; readonly tokens: readonly SqlToken[] }
  /** Records behind `COPY … FROM stdin`, a line each. */
  | {
      readonly kind: 'copy';
      readonly tokens: readonly SqlToken[];
      readonly rows: readonly string[];
      /** The line of the first of them. */
      readonly line: number;
    }
  /** A command of a client, which the server never sees. */
  | { readonly kind: 'command'; readonly text: string; readonly line: number };

/** A source in its statements. */
export interface SqlScript {
  readonly dialect: SqlDialect;
  readonly statements: readonly ScriptStatement[];
  /** What begins somewhere and ends nowhere. */
  readonly unended: readonly Unended[];
}

/** The share of a source that is done, from 0 to 1. */
type Told = (done: number) => void;

/** Splits a source into statements, in one pass: a body of code ends where it ends, whatever stands in it. */
export function sqlScript(source: string, told: Told = () => undefined): SqlScript {
  const lexing = lexingOf(source);
  const scanner = new SqlScanner(source, lexing);
  const splitter = new Splitter(scanner);
  const statements: ScriptStatement[] = [];
  for (let one = splitter.next(); one !== null; one = splitter.next()) {
    statements.push(one);
    told(scanner.at / Math.max(1, source.length));
  }
  return { dialect: lexing.dialect, statements, unended: scanner.unended };
}

const USUAL_DELIMITER = ';';

class Splitter {
  /** Whether bodies of code are still looked for; not once one was found without an end. */
  private readsBodies = true;
  /** Whether data of COPY may still end somewhere. */
  private readsCopies = true;

  constructor(private readonly scanner: SqlScanner) {}

  next(): ScriptStatement | null {
    const { scanner } = this;
    for (;;) {
      scanner.skipSpace();
      if (scanner.done) return null;
      const command = this.command();
      if (command !== null) return command;
      const tokens = this.statement();
      if (tokens.length === 0) continue;
      return isCopy(tokens) ? this.copied(tokens) : { kind: 'sql', tokens };
    }
  }

  /** `DELIMITER //` and `\connect` are told to the client, a line each. */
  private command(): ScriptStatement | null {
    const { scanner } = this;
    const { source, at, line } = scanner;
    if (!scanner.isAtLineStart) return null;
    const isBackslash = source[at] === '\\';
    const isDelimiter = !isBackslash && /^delimiter[ \t]/i.test(source.slice(at, at + 10));
    if (!isBackslash && !isDelimiter) return null;
    const text = scanner.takeLine().trim();
    if (isDelimiter)
      scanner.delimiter = text.slice('delimiter'.length).trim().split(/\s/)[0] ?? USUAL_DELIMITER;
    return { kind: 'command', text, line };
  }

  private statement(): readonly SqlToken[] {
    const { scanner } = this;
    const begin = { at: scanner.at, line: scanner.line, unended: scanner.unended.length };
    const body = new CodeBody(this.readsBodies && this.scanner.delimiter === USUAL_DELIMITER);
    const tokens: SqlToken[] = [];
    for (;;) {
      scanner.skipSpace();
      if (scanner.done) break;
      if (scanner.source.startsWith(scanner.delimiter, scanner.at) && body.isOutside(tokens)) {
        scanner.move(scanner.delimiter.length);
        return tokens;
      }
      const token = scanner.next();
      tokens.push(token);
      body.read(tokens);
    }
    if (body.isOutside(tokens)) return tokens;
    // A body without an end would take everything with it: it is read again, to its next semicolon.
    this.readsBodies = false;
    scanner.returnTo(begin.at, begin.line);
    scanner.unended.length = begin.unended;
    return this.statement();
  }

  /** The lines behind a COPY up to one that is `\.`; none where there is no such line. */
  private copied(tokens: readonly SqlToken[]): ScriptStatement {
    const { scanner } = this;
    const from = scanner.source.indexOf('\n', scanner.at) + 1;
    const found = from === 0 || !this.readsCopies ? null : endOfCopy(scanner.source, from);
    if (found === null) {
      this.readsCopies = false;
      return { kind: 'sql', tokens };
    }
    scanner.move(from - scanner.at);
    const { line } = scanner;
    const text = scanner.source.slice(from, found);
    scanner.move(found - from);
    scanner.takeLine();
    const rows = text === '' ? [] : text.replace(/\r?\n$/, '').split(/\r?\n/);
    return { kind: 'copy', tokens, rows, line };
  }
}

/** Where a line that is nothing but `\.` begins; `null` where none does. */
function endOfCopy(source: string, from: number): number | null {
  const pattern = /^\\\.\r?$/gm;
  pattern.lastIndex = from;
  return pattern.exec(source)?.index ?? null;
}

const isCopy = (tokens: readonly SqlToken[]): boolean =>
  tokens[0]?.word === 'COPY' &&
  tokens.some(({ word }, at) => word === 'STDIN' && tokens[at - 1]?.word === 'FROM');

const ROUTINES: ReadonlySet<string> = new Set(['TRIGGER', 'PROCEDURE', 'FUNCTION', 'EVENT', 'PACKAGE']);
/** What may be called like a routine. */
const DECLARED: ReadonlySet<string> = new Set([
  'TABLE',
  'VIEW',
  'INDEX',
  'TYPE',
  'DOMAIN',
  'SEQUENCE',
  'SCHEMA',
]);
/** What `END` closes besides blocks and cases, which are counted. */
const OTHER_ENDS: ReadonlySet<string> = new Set(['IF', 'LOOP', 'WHILE', 'REPEAT', 'FOR']);
/** So many tokens may stand before the word that says what is created: a definer, a security. */
const HEAD = 12;

/** Follows the blocks of a routine, whose semicolons end nothing. */
class CodeBody {
  private isRoutine = false;
  private depth = 0;

  constructor(private readonly isLookedFor: boolean) {}

  read(tokens: readonly SqlToken[]): void {
    if (!this.isLookedFor) return;
    const token = tokens.at(-1);
    if (tokens.length <= HEAD && tokens[0]?.word === 'CREATE' && ROUTINES.has(token?.word ?? ''))
      this.isRoutine = !tokens.some(({ word }) => DECLARED.has(word));
    if (!this.isRoutine || token === undefined) return;
    const before = tokens.at(-2)?.word;
    // `END IF` closes nothing that was counted; any other word behind END is a label.
    if (before === 'END') {
      if (!OTHER_ENDS.has(token.word)) this.depth--;
      if (token.word === 'CASE') return;
    }
    if (token.word === 'BEGIN' || token.word === 'CASE') this.depth++;
  }

  /** Whether a semicolon behind these tokens ends the statement. */
  isOutside(tokens: readonly SqlToken[]): boolean {
    return !this.isRoutine || this.depth - (tokens.at(-1)?.word === 'END' ? 1 : 0) <= 0;
  }
}
