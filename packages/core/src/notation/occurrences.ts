import type { TextRange } from './diagnostics.js';
import { namesInExpression, RoleTargets } from './expressionNames.js';
import { tokenize, type Token } from './tokens.js';

/** A name where it stands in a text, with what it is the name of. */
export interface Occurrence {
  /** The same for every occurrence of one thing: `block:Sailing`, `member:Sailing.vessel`, … */
  readonly symbol: string;
  readonly kind: 'block' | 'member' | 'transition' | 'state';
  readonly name: string;
  readonly place: TextRange;
  /** Whether the name is given here, rather than used. */
  readonly defines: boolean;
}

/** Every name in a text, by a reading of its own that does not mind errors. */
export function findOccurrences(text: string): readonly Occurrence[] {
  const finder = new Finder();
  text.split(/\r\n|\n|\r/).forEach((source, index) => {
    const { tokens } = tokenize(source, index + 1);
    if (tokens.length > 0) finder.line(tokens, source.length - source.trimStart().length);
  });
  finder.finish();
  return withoutStrayStates(finder.found);
}

/** A literal in a condition is a state only where the attribute it is compared with has it. */
function withoutStrayStates(found: readonly Occurrence[]): readonly Occurrence[] {
  const states = new Set(
    found.filter(({ kind, defines }) => kind === 'state' && defines).map(({ symbol }) => symbol),
  );
  return found.filter(({ kind, symbol }) => kind !== 'state' || states.has(symbol));
}

/** The occurrence at a line and column, both from 1. The end of a name counts as in it. */
export function occurrenceAt(found: readonly Occurrence[], line: number, column: number): Occurrence | null {
  return (
    found.find(
      ({ place }) => place.line === line && place.column <= column && column <= place.column + place.length,
    ) ?? null
  );
}

/** An expression up to the next flag. */
function withoutFlags(tokens: readonly Token[]): readonly Token[] {
  const end = tokens.findIndex(({ text }) => text === ',');
  return end === -1 ? tokens : tokens.slice(0, end);
}

const isName = (token: Token | undefined): token is Extract<Token, { kind: 'word' | 'string' }> =>
  token?.kind === 'word' || token?.kind === 'string';

const nameOf = (token: Extract<Token, { kind: 'word' | 'string' }>): string =>
  token.kind === 'string' ? token.value : token.text;

class Finder {
  readonly found: Occurrence[] = [];
  private block: string | null = null;
  private attribute: string | null = null;
  private readonly targets = new RoleTargets();
  /** Expressions may name what a sentence further below brings. */
  private readonly expressions: { readonly block: string; readonly tokens: readonly Token[] }[] = [];

  line(tokens: readonly Token[], indent: number): void {
    const [first] = tokens;
    if (indent === 0 && first?.text === 'each') this.sentence(tokens);
    else if (indent === 0) this.header(tokens);
    else if (this.block === null) return;
    else if (first?.text === 'unique' && tokens[1]?.text === '(') this.members(tokens.slice(2));
    else if (indent > 2 && tokens.some(({ text }) => text === '->')) this.transition(tokens);
    else this.attributeLine(tokens);
  }

  private add(kind: Occurrence['kind'], symbol: string, token: Token | undefined, defines: boolean): void {
    if (isName(token))
      this.found.push({
        kind,
        symbol: `${kind}:${symbol}`,
        name: nameOf(token),
        place: token.place,
        defines,
      });
  }

  private addBlock(token: Token | undefined, defines: boolean): void {
    if (token?.kind === 'word') this.add('block', token.text, token, defines);
  }

  private addMember(block: string, token: Token | undefined, defines: boolean): void {
    if (token?.kind === 'word') this.add('member', `${block}.${token.text}`, token, defines);
  }

  private addState(token: Token | undefined, defines: boolean, attribute = this.attribute): void {
    if (isName(token))
      this.add('state', `${this.block ?? ''}.${attribute ?? ''}.${nameOf(token)}`, token, defines);
  }

  private header(tokens: readonly Token[]): void {
    const [word, name] = tokens;
    this.attribute = null;
    this.block = null;
    if ((word?.text !== 'entity' && word?.text !== 'value') || name?.kind !== 'word') return;
    this.block = name.text;
    this.addBlock(name, true);
  }

  finish(): void {
    for (const { block, tokens } of this.expressions)
      for (const name of namesInExpression(block, tokens, this.targets)) {
        if (name.kind === 'member') this.addMember(name.block, name.token, false);
        else if (isName(name.token))
          this.add('state', `${name.block}.${name.attribute}.${nameOf(name.token)}`, name.token, false);
      }
  }

  private sentence(tokens: readonly Token[]): void {
    this.block = null;
    const from = tokens[1];
    const verbWords = tokens[2]?.text === 'owns' ? 1 : 2;
    const to = tokens[2 + verbWords + 1];
    this.targets.sentence(tokens, verbWords);
    this.addBlock(from, false);
    this.addBlock(to, false);
    tokens.forEach((token, index) => {
      const next = tokens[index + 1];
      if (token.kind !== 'word') return;
      if (token.text === 'as' && tokens[index - 1]?.text === 'back')
        this.addMember(to?.text ?? '', next, true);
      else if (token.text === 'as' && index > 3) this.addMember(from?.text ?? '', next, true);
      else if (token.text === 'carrying') this.addBlock(next, false);
    });
  }

  private members(tokens: readonly Token[]): void {
    for (const token of tokens) if (token.kind === 'word') this.addMember(this.block ?? '', token, false);
  }

  private attributeLine(tokens: readonly Token[]): void {
    const [name, colon] = tokens;
    if (name?.kind !== 'word' || colon?.text !== ':') return;
    this.attribute = name.text;
    this.addMember(this.block ?? '', name, true);
    const computed = tokens.findIndex((token, index) => index > 2 && token.text === 'computed');
    const end = computed === -1 ? tokens.length : computed;
    if (end < tokens.length)
      this.expressions.push({ block: this.block ?? '', tokens: withoutFlags(tokens.slice(end + 1)) });
    let depth = 0;
    let inChoice = false;
    tokens.slice(0, end).forEach((token, index) => {
      if (index < 2) return;
      const before = tokens[index - 1];
      if (token.text === '(') {
        depth++;
        inChoice ||= before?.text === 'choice';
      } else if (token.text === ')') {
        depth--;
        if (depth === 0) inChoice = false;
      } else if (inChoice) this.addState(token, true);
      else if (before?.text === 'within') this.addMember(this.block ?? '', token, false);
      else if (before?.text === 'default' && this.hasState(token)) this.addState(token, false);
      else if (token.kind === 'word' && depth === 0 && /^[A-Z]/.test(token.text)) this.addBlock(token, false);
    });
  }

  private hasState(token: Token): boolean {
    const symbol = isName(token) ? `state:${this.block ?? ''}.${this.attribute ?? ''}.${nameOf(token)}` : '';
    return this.found.some((occurrence) => occurrence.defines && occurrence.symbol === symbol);
  }

  private transition(tokens: readonly Token[]): void {
    const arrow = tokens.findIndex(({ text }) => text === '->');
    this.add(
      'transition',
      `${this.block ?? ''}.${this.attribute ?? ''}/${tokens[0]?.text ?? ''}`,
      tokens[0],
      true,
    );
    for (const token of tokens.slice(2, arrow)) this.addState(token, false);
    this.addState(tokens[arrow + 1], false);
    tokens.forEach((token, index) => {
      const compares = index > arrow && /^(=|!=|<|<=|>|>=)$/.test(token.text);
      if (!compares) return;
      const compared = tokens[index - 1];
      this.addMember(this.block ?? '', compared, false);
      this.addState(tokens[index + 1], false, compared?.text ?? null);
    });
  }
}
