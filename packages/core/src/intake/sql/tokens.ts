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

const TOKEN =
  /(?<space>\s+)|(?<comment>--[^\n]*|#[^\n]*|\/\*[\s\S]*?(?:\*\/|$))|(?<word>[A-Za-z_\u0080-\uffff][\w$\u0080-\uffff]*)|(?<number>\d+(?:\.\d+)?)|(?<string>'(?:[^'\\]|''|\\[\s\S])*'?)|(?<dollar>\$(?<tag>\w*)\$[\s\S]*?(?:\$\k<tag>\$|$))|(?<name>`(?:[^`]|``)*`?|"(?:[^"]|"")*"?|\[[^\]\n]*\])|(?<mark>::|[\s\S])/y;

/** Splits SQL into tokens, in one pass. Comments are passed over; nothing is ever refused here. */
export function tokenizeSql(source: string): readonly SqlToken[] {
  const tokens: SqlToken[] = [];
  let line = 1;
  TOKEN.lastIndex = 0;
  for (let match = TOKEN.exec(source); match !== null && match[0] !== ''; match = TOKEN.exec(source)) {
    const text = match[0];
    const groups = match.groups ?? {};
    const at = line;
    for (let index = text.indexOf('\n'); index !== -1; index = text.indexOf('\n', index + 1)) line++;
    if (groups['space'] !== undefined || groups['comment'] !== undefined) continue;
    tokens.push({ ...meaning(text, groups), line: at, endLine: line });
  }
  return tokens;
}

function meaning(
  text: string,
  groups: Readonly<Record<string, string | undefined>>,
): Omit<SqlToken, 'line' | 'endLine'> {
  if (groups['word'] !== undefined) return { kind: 'word', text, word: text.toUpperCase() };
  if (groups['number'] !== undefined) return { kind: 'number', text, word: '' };
  if (groups['string'] !== undefined) {
    const inner = text.slice(1, text.endsWith("'") && text.length > 1 ? -1 : undefined);
    return {
      kind: 'string',
      text: inner.replace(/''|\\(.)/gs, (_all, escaped: string | undefined) => escaped ?? "'"),
      word: '',
    };
  }
  if (groups['dollar'] !== undefined) return { kind: 'string', text, word: '' };
  if (groups['name'] !== undefined)
    return { kind: 'name', text: text.slice(1, -1).replace(/``|""/g, (pair) => pair.charAt(0)), word: '' };
  return { kind: 'mark', text, word: '' };
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
