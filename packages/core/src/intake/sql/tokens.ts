/** A token of SQL. Quoted identifiers are `name`, words are upper-cased in `word`. */
export interface SqlToken {
  readonly kind: 'word' | 'name' | 'string' | 'number' | 'mark';
  /** The text as it means: without quotes, escapes undone. */
  readonly text: string;
  /** The word in upper case; the empty text for other kinds. */
  readonly word: string;
  readonly line: number;
  readonly endLine: number;
}

const SPACE = /\s+/y;
const COMMENT = /--[^\n]*|#[^\n]*|\/\*[\s\S]*?(?:\*\/|$)/y;
const WORD = /[A-Za-z_\u0080-\uffff][\w$\u0080-\uffff]*/y;
const NUMBER = /\d+(?:\.\d+)?/y;
const DOLLAR = /\$(\w*)\$[\s\S]*?(?:\$\1\$|$)/y;
/** A name in brackets is short, so that a text full of brackets is read in one pass all the same. */
const BRACKETED = /\[[^\][\n]{0,128}\]/y;

/** The first of these that fits says what a token is; what fits none is a mark. */
const KINDS = [
  ['space', SPACE],
  ['word', WORD],
  ['mark', /[(),;.=]/y],
  ['number', NUMBER],
  ['name', BRACKETED],
  ['comment', COMMENT],
  ['dollar', DOLLAR],
  ['mark', /::|[\s\S]/y],
] as const;

type Kind = (typeof KINDS)[number][0] | 'string';

const BACKSLASH = '\\';

/** Text or a name in quotes, to its closing quote or the end of the source; a quote stands in it doubled. */
function quotedAt(source: string, at: number, hasEscapes: boolean): string {
  const quote = source[at];
  for (let end = at + 1; end < source.length; end++) {
    if (hasEscapes && source[end] === BACKSLASH) end++;
    else if (source[end] !== quote) continue;
    else if (source[end + 1] === quote) end++;
    else return source.slice(at, end + 1);
  }
  return source.slice(at);
}

/** Splits SQL into tokens, in one pass. Comments are passed over; nothing is ever refused here. */
export function tokenizeSql(source: string): readonly SqlToken[] {
  const tokens: SqlToken[] = [];
  let line = 1;
  for (let at = 0; at < source.length;) {
    const [kind, text] = tokenAt(source, at);
    const start = line;
    for (let index = text.indexOf('\n'); index !== -1; index = text.indexOf('\n', index + 1)) line++;
    at += text.length;
    if (kind !== 'space' && kind !== 'comment') tokens.push(tokenOf(kind, text, start, line));
  }
  return tokens;
}

function tokenAt(source: string, at: number): readonly [Kind, string] {
  const first = source[at];
  if (first === "'") return ['string', quotedAt(source, at, true)];
  // PostgreSQL's texts with escapes.
  if ((first === 'E' || first === 'e') && source[at + 1] === "'")
    return ['string', first + quotedAt(source, at + 1, true)];
  if (first === '`' || first === '"') return ['name', quotedAt(source, at, false)];
  for (const [kind, pattern] of KINDS) {
    pattern.lastIndex = at;
    const match = pattern.exec(source);
    if (match !== null && match[0] !== '') return [kind, match[0]];
  }
  return ['mark', source.charAt(at)];
}

function tokenOf(
  kind: Exclude<Kind, 'space' | 'comment'>,
  source: string,
  line: number,
  endLine: number,
): SqlToken {
  switch (kind) {
    case 'word':
      return { kind, text: source, word: source.toUpperCase(), line, endLine };
    case 'string': {
      const begin = source.indexOf("'") + 1;
      const inner = source.slice(begin, source.endsWith("'") && source.length > begin ? -1 : undefined);
      const text = inner.replace(/''|\\(.)/gs, (_all, escaped: string | undefined) => escaped ?? "'");
      return { kind, text, word: '', line, endLine };
    }
    case 'dollar':
      return { kind: 'string', text: source, word: '', line, endLine };
    case 'name': {
      const text = source.slice(1, -1).replace(/``|""/g, (pair) => pair.charAt(0));
      return { kind, text, word: '', line, endLine };
    }
    case 'number':
    case 'mark':
      return { kind, text: source, word: '', line, endLine };
  }
}

/** The tokens of each statement, split at semicolons outside parentheses. */
export function splitStatements(tokens: readonly SqlToken[]): readonly (readonly SqlToken[])[] {
  const statements: SqlToken[][] = [];
  let current: SqlToken[] = [];
  for (const token of tokens) {
    if (token.kind === 'mark' && token.text === ';') {
      if (current.length > 0) statements.push(current);
      current = [];
    } else current.push(token);
  }
  if (current.length > 0) statements.push(current);
  return statements;
}
