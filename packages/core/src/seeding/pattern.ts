import { codePointLength, compilePattern } from '../model/index.js';
import { readPattern, type PatternNode } from './patternTree.js';
import type { Random } from './random.js';

/** Lengths that are tried before a pattern counts as one that nothing was found for. */
const ATTEMPTS = 12;

/** So many code points more than the fewest a text gets where it may be longer. */
const SPREAD = 7;

/** Nodes that are visited for one text; patterns that need more are none that people write. */
const MOST_STEPS = 100_000;

/**
 * A text that matches a pattern (RE2 syntax) as a whole, between `min` and `max` code points long; `null` when none
 * was found. The time it takes is in proportion to the pattern and to the text it gives, and has an end.
 */
export function sampleText(pattern: string, min: number, max: number, random: Random): string | null {
  const tree = readPattern(pattern);
  if (tree === null) return null;
  const compiled = compilePattern(pattern);
  const least = Math.max(min, tree.least);
  const most = Math.max(least, Math.min(max, tree.most));
  for (let attempt = 0; attempt < ATTEMPTS; attempt++) {
    const spread = Math.min(most - least, Math.max(SPREAD, attempt * SPREAD));
    const text = new Sampler(random).text(tree, least + random.integer(0, spread));
    if (text === null) return null;
    const length = codePointLength(text);
    if (length >= min && length <= max && compiled.matches(text)) return text;
  }
  return null;
}

/** Walks a pattern once, and lets each part of it have a share of the length that is wanted. */
class Sampler {
  private readonly parts: string[] = [];
  private steps = 0;

  constructor(private readonly random: Random) {}

  /** A text about as long as wanted; `null` where it takes too many steps. */
  text(tree: PatternNode, length: number): string | null {
    this.visit(tree, length);
    return this.steps > MOST_STEPS ? null : this.parts.join('');
  }

  private visit(node: PatternNode, length: number): void {
    if (++this.steps > MOST_STEPS) return;
    // What may be empty is, where nothing is wanted of it.
    if (length <= 0 && node.least === 0) return;
    switch (node.kind) {
      case 'text':
        this.parts.push(node.text);
        return;
      case 'one':
        this.parts.push(this.random.pick(node.characters));
        return;
      case 'sequence':
        this.visitSequence(node, length);
        return;
      case 'alternatives': {
        const fitting = node.of.filter(({ least, most }) => least <= length && length <= most);
        this.visit(this.random.pick(fitting.length > 0 ? fitting : node.of), length);
        return;
      }
      case 'repeated':
        this.visitRepeated(node, length);
    }
  }

  private visitSequence({ of }: Extract<PatternNode, { kind: 'sequence' }>, length: number): void {
    let left = length;
    for (const { node, leastBehind, mostBehind } of of) {
      const share = this.share(node, left, leastBehind, mostBehind);
      this.visit(node, share);
      left -= share;
    }
  }

  private visitRepeated({ of, times }: Extract<PatternNode, { kind: 'repeated' }>, length: number): void {
    const fewest = Math.max(times.least, Math.ceil(length / of.most));
    const most = of.least > 0 ? Math.floor(length / of.least) : length;
    const count = this.random.integer(fewest, Math.max(fewest, Math.min(times.most, most)));
    let left = length;
    for (let index = 1; index <= count && this.steps <= MOST_STEPS; index++) {
      const others = count - index;
      const share = this.share(of, left, others * of.least, others === 0 ? 0 : others * of.most);
      this.visit(of, share);
      left -= share;
    }
  }

  /** How much of a length a part gets, where those behind it can have so much. */
  private share({ least, most }: PatternNode, left: number, leastLeft: number, mostLeft: number): number {
    const from = Math.max(least, left - mostLeft);
    return this.random.integer(from, Math.max(from, Math.min(most, left - leastLeft)));
  }
}
