import { compilePattern, patternProblem } from '../model/index.js';

/** A part of a pattern, with the fewest and the most code points of what matches it. */
export type PatternNode = { readonly least: number; readonly most: number } & (
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'one'; readonly characters: readonly string[] }
  | { readonly kind: 'sequence'; readonly of: readonly SequencePart[] }
  | { readonly kind: 'alternatives'; readonly of: readonly PatternNode[] }
  | { readonly kind: 'repeated'; readonly of: PatternNode; readonly times: Times }
);

/** One part of a sequence, and what the parts behind it have together. */
interface SequencePart {
  readonly node: PatternNode;
  readonly leastBehind: number;
  readonly mostBehind: number;
}

interface Times {
  readonly least: number;
  readonly most: number;
}

/** The tree of a pattern in RE2 syntax; `null` where it has something that no character fits. */
export function readPattern(pattern: string): PatternNode | null {
  const known = trees.get(pattern);
  if (known !== undefined) return known;
  if (patternProblem(pattern) !== null) return null;
  const tree = new PatternReader(pattern).whole();
  if (trees.size >= MOST_TREES) trees.clear();
  trees.set(pattern, tree);
  return tree;
}

const MOST_TREES = 500;
const trees = new Map<string, PatternNode | null>();

/** Something that no character fits, such as `[^\s\S]`. */
class NothingFits extends Error {}

/** What matches between characters and takes none of them. What was found is tried against the whole pattern. */
const ASSERTIONS: ReadonlySet<string> = new Set(['A', 'z', 'Z', 'b', 'B']);
const CONTROLS: Readonly<Record<string, string>> = {
  n: '\n',
  r: '\r',
  t: '\t',
  f: '\f',
  v: '\v',
  a: '\u0007',
};
const EMPTY: PatternNode = { kind: 'text', text: '', least: 0, most: 0 };
const REPEAT = /\{(\d+)(,(\d*))?\}/y;
const GROUP = /\?(?:P?<[^>]*>|[a-zA-Z]*(?:-[a-zA-Z]+)?(:|(?=\))))/y;
const CODE = /x(?:\{([0-9A-Fa-f]+)\}|([0-9A-Fa-f]{2}))|([0-7]{2,3})/y;
const PROPERTY = /[pP](?:\{[^}]*\}|.)/y;

/** Reads what RE2 has read already, so that nothing in it is wrong. Its nesting has an end there (1 000). */
class PatternReader {
  private at = 0;

  constructor(private readonly pattern: string) {}

  whole(): PatternNode | null {
    try {
      return this.alternatives();
    } catch (error) {
      if (error instanceof NothingFits) return null;
      throw error;
    }
  }

  private alternatives(): PatternNode {
    const of = [this.sequence()];
    while (this.take('|')) of.push(this.sequence());
    const [only] = of;
    if (of.length === 1 && only !== undefined) return only;
    return {
      kind: 'alternatives',
      of,
      least: of.reduce((least, node) => Math.min(least, node.least), Infinity),
      most: of.reduce((most, node) => Math.max(most, node.most), 0),
    };
  }

  private sequence(): PatternNode {
    const nodes: PatternNode[] = [];
    let literal: string[] = [];
    const endLiteral = (): void => {
      if (literal.length > 0) nodes.push(textNode(literal));
      literal = [];
    };
    while (this.at < this.pattern.length && !this.isAt('|') && !this.isAt(')')) {
      const atom = this.atom();
      const times = this.times();
      if (times === null && typeof atom === 'string') literal.push(atom);
      else {
        endLiteral();
        const node = typeof atom === 'string' ? textNode([atom]) : atom;
        nodes.push(times === null ? node : repeated(node, times));
      }
    }
    endLiteral();
    return sequenceOf(nodes);
  }

  /** One literal character, or a part of another kind. */
  private atom(): string | PatternNode {
    switch (this.pattern[this.at]) {
      case '(':
        return this.group();
      case '[':
        return this.characterClass();
      case '\\':
        return this.escape();
      case '.':
        this.at++;
        return oneOf('.');
      case '^':
      case '$':
        this.at++;
        return EMPTY;
      default:
        return this.character();
    }
  }

  private character(): string {
    const character = String.fromCodePoint(this.pattern.codePointAt(this.at) ?? 0);
    this.at += character.length;
    return character;
  }

  private group(): PatternNode {
    this.at++;
    const isPlain = this.match(GROUP);
    // Flags alone, such as (?i), change how what follows is matched; what is found without them still matches.
    if (isPlain !== null && this.take(')')) return EMPTY;
    const inner = this.alternatives();
    this.take(')');
    return inner;
  }

  private escape(): string | PatternNode {
    const start = this.at++;
    const sign = this.pattern[this.at] ?? '';
    if (ASSERTIONS.has(sign)) {
      this.at++;
      return EMPTY;
    }
    if (sign === 'Q') return this.quoted();
    const code = this.match(CODE);
    if (code !== null) return fromCode(code);
    if (this.match(PROPERTY) !== null || /[dDwWsS]/.test(sign)) {
      if (this.at === start + 1) this.at++;
      return oneOf(this.pattern.slice(start, this.at));
    }
    const literal = this.character();
    return CONTROLS[literal] ?? literal;
  }

  /** Everything up to \\E as it stands. */
  private quoted(): PatternNode {
    const end = this.pattern.indexOf('\\E', this.at);
    const text = this.pattern.slice(this.at + 1, end === -1 ? undefined : end);
    this.at = end === -1 ? this.pattern.length : end + 2;
    return text === '' ? EMPTY : textNode([...text]);
  }

  /** A class in brackets, whose end alone is looked for: RE2 itself tells which characters are in it. */
  private characterClass(): PatternNode {
    const start = this.at++;
    this.take('^');
    this.take(']');
    while (this.at < this.pattern.length && !this.isAt(']')) {
      if (this.pattern.startsWith('[:', this.at)) this.at = this.pattern.indexOf(':]', this.at) + 1;
      else if (this.isAt('\\')) this.at++;
      this.at++;
    }
    this.at++;
    return oneOf(this.pattern.slice(start, this.at));
  }

  /** How often what stands before is repeated; `null` where it stands once. */
  private times(): Times | null {
    const times = this.quantifier();
    // Fewest first, which changes nothing of what matches as a whole.
    if (times !== null) this.take('?');
    return times;
  }

  private quantifier(): Times | null {
    if (this.take('*')) return { least: 0, most: Infinity };
    if (this.take('+')) return { least: 1, most: Infinity };
    if (this.take('?')) return { least: 0, most: 1 };
    const counted = this.match(REPEAT);
    if (counted === null) return null;
    const least = Number(counted[1]);
    const end = counted[3] ?? '';
    return { least, most: counted[2] === undefined ? least : end === '' ? Infinity : Number(end) };
  }

  private match(pattern: RegExp): RegExpExecArray | null {
    pattern.lastIndex = this.at;
    const found = pattern.exec(this.pattern);
    if (found !== null) this.at += found[0].length;
    return found;
  }

  private isAt(sign: string): boolean {
    return this.pattern[this.at] === sign;
  }

  private take(sign: string): boolean {
    if (!this.isAt(sign)) return false;
    this.at++;
    return true;
  }
}

const fromCode = ([, braced, two, octal]: RegExpExecArray): string =>
  String.fromCodePoint(octal === undefined ? parseInt(braced ?? two ?? '0', 16) : parseInt(octal, 8));

const textNode = (characters: readonly string[]): PatternNode => ({
  kind: 'text',
  text: characters.join(''),
  least: characters.length,
  most: characters.length,
});

function sequenceOf(nodes: readonly PatternNode[]): PatternNode {
  const [only = EMPTY] = nodes;
  if (nodes.length <= 1) return only;
  const of: SequencePart[] = [];
  let [least, most] = [0, 0];
  for (const node of [...nodes].reverse()) {
    of.push({ node, leastBehind: least, mostBehind: most });
    least += node.least;
    most += node.most;
  }
  return { kind: 'sequence', of: of.reverse(), least, most };
}

const repeated = (of: PatternNode, times: Times): PatternNode => ({
  kind: 'repeated',
  of,
  times,
  least: of.least * times.least,
  most: of.most === 0 || times.most === 0 ? 0 : of.most * times.most,
});

const PRINTABLE = Array.from({ length: 95 }, (_, index) => String.fromCharCode(32 + index));
const PLAIN: ReadonlySet<string> = new Set(PRINTABLE.filter((character) => /[A-Za-z0-9]/.test(character)));

/** Where nothing printable fits: the other characters of ASCII, then a thin selection of the rest, then all. */
const FURTHER: readonly (readonly [from: number, to: number, step: number])[] = [
  [0, 0x20, 1],
  [0x7f, 0x3000, 3],
  [0x3000, 0xd800, 61],
  [0xe000, 0x20000, 61],
  [0x7f, 0xd800, 1],
];
const ENOUGH = 40;

const members = new Map<string, readonly string[]>();

/** One of the characters of a class: letters and digits where it leaves out few. */
function oneOf(source: string): PatternNode {
  const known = members.get(source) ?? charactersOf(source);
  if (members.size >= MOST_TREES) members.clear();
  members.set(source, known);
  if (known.length === 0) throw new NothingFits();
  return { kind: 'one', characters: known, least: 1, most: 1 };
}

function charactersOf(source: string): readonly string[] {
  const compiled = compilePattern(source);
  const printable = PRINTABLE.filter((character) => compiled.matches(character));
  const plain = printable.filter((character) => PLAIN.has(character));
  if (printable.length > PLAIN.size && plain.length > 0) return plain;
  if (printable.length > 0) return printable;
  for (const [from, to, step] of FURTHER) {
    const found: string[] = [];
    for (let code = from; code < to && found.length < ENOUGH; code += step) {
      const character = String.fromCodePoint(code);
      if (compiled.matches(character)) found.push(character);
    }
    if (found.length > 0) return found;
  }
  return [];
}
