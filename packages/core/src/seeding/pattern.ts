import { compilePattern } from '../model/index.js';
import type { Random } from './random.js';

/** Syntax the sampler does not know; the caller falls back to another source of values. */
class UnknownSyntax extends Error {}

const DIGITS = '0123456789';
const LOWER = 'abcdefghijklmnopqrstuvwxyz';
const UPPER = LOWER.toUpperCase();
const PRINTABLE = Array.from({ length: 95 }, (_, index) => String.fromCharCode(32 + index)).join('');

/**
 * A text that matches the pattern as a whole, between `min` and `max` code points long, or `null` when the
 * sampler does not find one. Knows literals, escapes, classes, groups, alternatives and quantifiers.
 */
export function sampleText(pattern: string, min: number, max: number, random: Random): string | null {
  const compiled = compilePattern(pattern);
  try {
    for (let attempt = 0; attempt < 40; attempt++) {
      const reach = Math.min(min + (attempt % 8), max);
      const text = new Sampler(pattern, random, reach).sample();
      if (text.length >= min && text.length <= max && compiled.matches(text)) return text;
    }
  } catch (error) {
    if (!(error instanceof UnknownSyntax)) throw error;
  }
  return null;
}

class Sampler {
  private position = 0;

  constructor(
    private readonly pattern: string,
    private readonly random: Random,
    /** How often an open quantifier repeats: enough to reach the shortest length wanted. */
    private readonly reach: number,
  ) {}

  sample(): string {
    const text = this.alternatives();
    if (this.position < this.pattern.length) throw new UnknownSyntax();
    return text;
  }

  private alternatives(): string {
    const branches = [this.sequence()];
    while (this.take('|')) branches.push(this.sequence());
    return this.random.pick(branches);
  }

  private sequence(): string {
    let text = '';
    while (this.position < this.pattern.length && !'|)'.includes(this.peek())) {
      const start = this.position;
      const first = this.atom();
      const after = this.position;
      const times = this.quantifier();
      const end = this.position;
      if (times > 0) text += first;
      for (let time = 1; time < times; time++) {
        this.position = start;
        text += this.atom();
        if (this.position !== after) throw new UnknownSyntax();
      }
      this.position = end;
    }
    return text;
  }

  private atom(): string {
    const sign = this.next();
    switch (sign) {
      case '(': {
        if (this.take('?') && !this.take(':')) throw new UnknownSyntax();
        const text = this.alternatives();
        if (!this.take(')')) throw new UnknownSyntax();
        return text;
      }
      case '[':
        return this.random.pick([...this.characterClass()]);
      case '.':
        return this.random.pick([...(LOWER + DIGITS)]);
      case '\\':
        return this.random.pick([...escaped(this.next())]);
      case '^':
      case '$':
        return '';
      default:
        return sign;
    }
  }

  private characterClass(): string {
    const negated = this.take('^');
    let members = '';
    while (!this.take(']')) {
      const sign = this.next();
      const from = sign === '\\' ? escaped(this.next()) : sign;
      if (this.peek() === '-' && this.pattern[this.position + 1] !== ']' && from.length === 1) {
        this.next();
        const to = this.next();
        for (let code = from.charCodeAt(0); code <= to.charCodeAt(0); code++)
          members += String.fromCharCode(code);
      } else members += from;
    }
    return negated ? [...PRINTABLE].filter((sign) => !members.includes(sign)).join('') : members;
  }

  private quantifier(): number {
    if (this.take('*')) return this.random.integer(0, Math.max(2, this.reach));
    if (this.take('+')) return Math.max(1, this.reach);
    if (this.take('?')) return this.random.integer(0, 1);
    const match = /^\{(\d+)(,(\d*))?\}/.exec(this.pattern.slice(this.position));
    if (match === null) return 1;
    this.position += match[0].length;
    const least = Number(match[1]);
    if (match[2] === undefined) return least;
    const most = match[3] === '' || match[3] === undefined ? Math.max(least, this.reach) : Number(match[3]);
    return Math.min(most, Math.max(least, this.random.integer(least, Math.min(most, least + 8))));
  }

  private peek(): string {
    return this.pattern[this.position] ?? '';
  }

  private next(): string {
    const sign = this.pattern[this.position++];
    if (sign === undefined) throw new UnknownSyntax();
    return sign;
  }

  private take(sign: string): boolean {
    if (this.peek() !== sign) return false;
    this.position++;
    return true;
  }
}

function escaped(sign: string): string {
  switch (sign) {
    case 'd':
      return DIGITS;
    case 'w':
      return LOWER + UPPER + DIGITS + '_';
    case 's':
      return ' ';
    default:
      if (/[A-Za-z0-9]/.test(sign)) throw new UnknownSyntax();
      return sign;
  }
}
