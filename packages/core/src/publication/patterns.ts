import { patternProblem } from '../model/index.js';

/**
 * A pattern in RE2 syntax as ECMA-262 reads it with the flag `u`, so that both match the same texts as a whole; `null`
 * where it cannot be said there. A pattern of a schema is searched for, so it is anchored by whoever publishes it
 * (JSON Schema Validation §6.3.3).
 */
export function asEcmaPattern(pattern: string): string | null {
  const known = translated.get(pattern);
  if (known !== undefined) return known;
  const found = translate(pattern);
  if (translated.size >= MOST_KEPT) translated.clear();
  translated.set(pattern, found);
  return found;
}

const MOST_KEPT = 2_000;
const translated = new Map<string, string | null>();

function translate(pattern: string): string | null {
  if (patternProblem(pattern) !== null) return null;
  try {
    const text = new Translation(pattern).whole();
    // What this engine does not read, others will not read either.
    new RegExp(text, 'u').test('');
    return text;
  } catch (error) {
    if (error instanceof Unsayable || error instanceof SyntaxError) return null;
    throw error;
  }
}

class Unsayable extends Error {}

interface Flags {
  /** Whether letters match in either case. */
  readonly folds: boolean;
  /** Whether ^ and $ are about lines. */
  readonly lines: boolean;
  /** Whether a dot is also a line feed. */
  readonly dotIsAll: boolean;
}

const LAST = 0x10ffff;

type Range = readonly [from: number, to: number];

/** Characters of a class: ranges of code points, and properties of Unicode as ECMA-262 writes them. */
interface Characters {
  readonly ranges: readonly Range[];
  readonly properties: readonly string[];
}

const code = (character: string): number => character.codePointAt(0) ?? 0;
const spans = (...texts: readonly string[]): readonly Range[] =>
  texts.map((text) => [code(text), code([...text].at(-1) ?? text)]);

/** RE2's \s has no vertical tab, and none of the spaces beyond ASCII. */
const PERL: Readonly<Record<string, readonly Range[]>> = {
  d: spans('09'),
  s: spans('\t\n', '\f\r', ' '),
  w: spans('09', 'AZ', '_', 'az'),
};

const POSIX: Readonly<Record<string, readonly Range[]>> = {
  alnum: spans('09', 'AZ', 'az'),
  alpha: spans('AZ', 'az'),
  ascii: [[0, 0x7f]],
  blank: spans('\t', ' '),
  cntrl: [
    [0, 0x1f],
    [0x7f, 0x7f],
  ],
  digit: spans('09'),
  graph: spans('!~'),
  lower: spans('az'),
  print: spans(' ~'),
  punct: spans('!/', ':@', '[`', '{~'),
  space: spans('\t\r', ' '),
  upper: spans('AZ'),
  word: spans('09', 'AZ', '_', 'az'),
  xdigit: spans('09', 'AF', 'af'),
};

const CONTROLS: Readonly<Record<string, number>> = { a: 7, f: 12, n: 10, r: 13, t: 9, v: 11 };
const REPEAT = /\{\d+(?:,\d*)?\}|[*+?]/y;
const GROUP = /\?(?:P?<[^>]*>|([imsU]*)(?:-([imsU]+))?([:)]))/y;
const CODE = /x(?:\{([0-9A-Fa-f]+)\}|([0-9A-Fa-f]{2}))|([0-7]{2,3}|0)/y;
const PROPERTY = /([pP])(?:\{(\^?)([^}]*)\}|(.))/y;
const NAMED_CLASS = /\[:(\^?)(\w+):\]/y;

/** Reads what RE2 has read already, so that nothing in it is wrong, and writes it again. */
class Translation {
  private at = 0;

  constructor(private readonly pattern: string) {}

  whole(): string {
    return this.alternatives({ folds: false, lines: false, dotIsAll: false });
  }

  private alternatives(flags: Flags): string {
    let text = '';
    let now = flags;
    while (this.at < this.pattern.length && this.peek() !== ')') {
      if (this.take('|')) {
        text += '|';
        continue;
      }
      const set = this.flagsAlone(now);
      if (set === null) text += this.repeated(now);
      else now = set;
    }
    return text;
  }

  /** Flags that hold to the end of the group: `(?i)`. */
  private flagsAlone(flags: Flags): Flags | null {
    if (!this.pattern.startsWith('(?', this.at)) return null;
    const start = this.at++;
    const found = this.match(GROUP);
    if (found?.[3] === ')') return withFlags(flags, found[1] ?? '', found[2] ?? '');
    this.at = start;
    return null;
  }

  private repeated(flags: Flags): string {
    const atom = this.atom(flags);
    const times = this.match(REPEAT);
    if (times === null) return atom;
    // Fewest first changes nothing of what matches as a whole.
    this.take('?');
    return (isRepeatable(atom) ? atom : `(?:${atom})`) + times[0];
  }

  private atom(flags: Flags): string {
    switch (this.peek()) {
      case '(':
        return this.group(flags);
      case '[':
        return this.characterClass(flags);
      case '\\':
        return this.escape(flags);
      case '.':
        this.at++;
        return flags.dotIsAll ? '[\\s\\S]' : '[^\\n]';
      case '^':
        this.at++;
        return flags.lines ? '(?:^|(?<=\\n))' : '^';
      case '$':
        this.at++;
        return flags.lines ? '(?=\\n|$)' : '$';
      default:
        return literal(this.character(), flags);
    }
  }

  private group(flags: Flags): string {
    this.at++;
    const found = this.match(GROUP);
    const inner = found === null ? flags : withFlags(flags, found[1] ?? '', found[2] ?? '');
    const text = this.alternatives(inner);
    this.take(')');
    return `(?:${text})`;
  }

  private escape(flags: Flags): string {
    this.at++;
    const sign = this.peek();
    switch (sign) {
      case 'A':
      case 'z':
        this.at++;
        return sign === 'A' ? '^' : '$';
      case 'b':
      case 'B':
        this.at++;
        return `\\${sign}`;
      case 'C':
        throw new Unsayable();
      case 'Q':
        this.at++;
        return this.quoted(flags);
      default: {
        const characters = this.escaped(flags);
        return typeof characters === 'number' ? literal(characters, flags) : classText(characters, false);
      }
    }
  }

  /** Everything up to \\E as it stands. */
  private quoted(flags: Flags): string {
    const end = this.pattern.indexOf('\\E', this.at);
    const text = this.pattern.slice(this.at, end === -1 ? undefined : end);
    this.at = end === -1 ? this.pattern.length : end + 2;
    return `(?:${[...text].map((character) => literal(code(character), flags)).join('')})`;
  }

  /** What stands behind a backslash, in a class as well: one code point, or some. */
  private escaped(flags: Flags): number | Characters {
    const number = this.match(CODE);
    if (number !== null)
      return number[3] === undefined ? parseInt(number[1] ?? number[2] ?? '0', 16) : parseInt(number[3], 8);
    const property = this.match(PROPERTY);
    if (property !== null) return propertyOf(property, flags);
    const sign = this.peek();
    const perl = PERL[sign.toLowerCase()];
    if (perl !== undefined) {
      this.at++;
      const ranges = flags.folds ? folded(perl) : perl;
      return { ranges: sign === sign.toLowerCase() ? ranges : complement(ranges), properties: [] };
    }
    const control = CONTROLS[sign];
    if (control === undefined) return this.character();
    this.at++;
    return control;
  }

  private characterClass(flags: Flags): string {
    this.at++;
    const isNegated = this.take('^');
    const ranges: Range[] = [];
    const properties: string[] = [];
    for (let isFirst = true; this.at < this.pattern.length; isFirst = false) {
      if (this.peek() === ']' && !isFirst) break;
      const named = this.match(NAMED_CLASS);
      const found = named === null ? this.member(flags) : posixOf(named, flags);
      for (const range of found.ranges) ranges.push(range);
      for (const property of found.properties) properties.push(property);
    }
    this.take(']');
    return classText({ ranges, properties }, isNegated);
  }

  /** One character of a class, a range, or what a name stands for. */
  private member(flags: Flags): Characters {
    const from = this.take('\\') ? this.escaped(flags) : this.character();
    if (typeof from !== 'number') return from;
    let to = from;
    if (this.peek() === '-' && this.pattern[this.at + 1] !== ']' && this.at + 1 < this.pattern.length) {
      this.at++;
      const end = this.take('\\') ? this.escaped(flags) : this.character();
      if (typeof end !== 'number') throw new Unsayable();
      to = end;
    }
    const range: readonly Range[] = [[from, to]];
    return { ranges: flags.folds ? folded(range) : range, properties: [] };
  }

  private character(): number {
    const found = this.pattern.codePointAt(this.at) ?? 0;
    this.at += found > 0xffff ? 2 : 1;
    return found;
  }

  private peek(): string {
    return this.pattern[this.at] ?? '';
  }

  private take(sign: string): boolean {
    if (this.peek() !== sign) return false;
    this.at++;
    return true;
  }

  private match(expected: RegExp): RegExpExecArray | null {
    expected.lastIndex = this.at;
    const found = expected.exec(this.pattern);
    if (found !== null) this.at += found[0].length;
    return found;
  }
}

/** Whether a quantifier may stand behind it as it is: one character, a class, or a group; no assertion. */
const isRepeatable = (atom: string): boolean =>
  atom.startsWith('[') || atom.startsWith('(?:') || (ONE.test(atom) && !ASSERTIONS.has(atom));

const ONE = /^(?:\\u\{[0-9a-f]+\}|\\u[0-9a-f]{4}|\\?.)$/u;
const ASSERTIONS: ReadonlySet<string> = new Set(['^', '$', '\\b', '\\B']);

function withFlags(flags: Flags, on: string, off: string): Flags {
  const is = (letter: string, before: boolean): boolean =>
    on.includes(letter) || (before && !off.includes(letter));
  return { folds: is('i', flags.folds), lines: is('m', flags.lines), dotIsAll: is('s', flags.dotIsAll) };
}

/** Letters beyond ASCII have cases of their own, which the two do not know from the same tables. */
function folded(ranges: readonly Range[]): readonly Range[] {
  const added: Range[] = [];
  for (const [from, to] of ranges) {
    if (to > 0x7f && !(from === 0 && to === LAST)) throw new Unsayable();
    for (let at = Math.max(from, code('A')); at <= Math.min(to, code('z')); at++) {
      const letter = String.fromCharCode(at);
      if (!/[A-Za-z]/.test(letter)) continue;
      const other = letter === letter.toLowerCase() ? letter.toUpperCase() : letter.toLowerCase();
      added.push([code(other), code(other)]);
      const beyond = FOLDED_TO[letter.toLowerCase()];
      if (beyond !== undefined) added.push([beyond, beyond]);
    }
  }
  return [...ranges, ...added];
}

/** The long s and the sign for kelvin are letters of ASCII in another case (Unicode, CaseFolding). */
const FOLDED_TO: Readonly<Record<string, number>> = { s: 0x17f, k: 0x212a };

function complement(ranges: readonly Range[]): readonly Range[] {
  const left: Range[] = [];
  let next = 0;
  for (const [from, to] of [...ranges].sort(([one], [other]) => one - other)) {
    if (from > next) left.push([next, from - 1]);
    next = Math.max(next, to + 1);
  }
  if (next <= LAST) left.push([next, LAST]);
  return left;
}

function posixOf([, not, name = '']: RegExpExecArray, flags: Flags): Characters {
  const found = POSIX[name];
  if (found === undefined) throw new Unsayable();
  const ranges = flags.folds ? folded(found) : found;
  return { ranges: not === '^' ? complement(ranges) : ranges, properties: [] };
}

/** General categories have one or two letters, and so has one script. */
const isCategory = (name: string): boolean => name.length <= 2 && name !== 'Yi';

/** A general category, or a script. */
function propertyOf([, sign, not, braced, single]: RegExpExecArray, flags: Flags): Characters {
  if (flags.folds) throw new Unsayable();
  const name = braced ?? single ?? '';
  const isNegated = (sign === 'P') !== (not === '^');
  if (name === 'Any') return { ranges: isNegated ? [] : [[0, LAST]], properties: [] };
  const said = isCategory(name) ? name : `Script=${name}`;
  return { ranges: [], properties: [`\\${isNegated ? 'P' : 'p'}{${said}}`] };
}

function literal(character: number, flags: Flags): string {
  return flags.folds
    ? classText({ ranges: folded([[character, character]]), properties: [] }, false)
    : written(character);
}

function classText({ ranges, properties }: Characters, isNegated: boolean): string {
  const parts = ranges.map(([from, to]) => (from === to ? written(from) : `${written(from)}-${written(to)}`));
  return `[${isNegated ? '^' : ''}${parts.join('')}${properties.join('')}]`;
}

/** Letters and digits of ASCII as they are, everything else by its number: it means the same wherever it stands. */
function written(character: number): string {
  const text = String.fromCodePoint(character);
  if (/[A-Za-z0-9 _]/.test(text)) return text;
  if (SIGNS.test(text)) return `\\${text}`;
  if (PLAIN.test(text)) return text;
  return character > 0xffff
    ? `\\u{${character.toString(16)}}`
    : `\\u${character.toString(16).padStart(4, '0')}`;
}

/** What may be escaped with the flag `u` in and outside classes alike (ECMA-262 §22.2.1). */
const SIGNS = /[$()*+./?[\\\]^{|}]/;
/** What has no meaning anywhere. */
const PLAIN = /[!"#%',:;<=>@`~]/;
