import { describe, expect, test } from '@jest/globals';
import { compilePattern } from '@isomeros/core/model';
import { asEcmaPattern } from '@isomeros/core/publication';
import fc from 'fast-check';
import { rounds } from '../support/rounds.js';

const matchesAsPublished = (published: string, text: string): boolean =>
  new RegExp(`^(?:${published})$`, 'u').test(text);

/** What both accept, and what one of them reads otherwise. */
const PARTS = [
  'a',
  'S',
  'k',
  '-',
  '/',
  '"',
  'é',
  '😀',
  '.',
  '\\s',
  '\\S',
  '\\d',
  '\\D',
  '\\w',
  '\\W',
  '\\pL',
  '\\PL',
  '\\p{Greek}',
  '\\p{^Lu}',
  '\\pN',
  '[[:alpha:]]',
  '[[:^punct:]]',
  '[^a-c]',
  '[]a]',
  '[a\\-z\\]]',
  '[\\s\\dx-z]',
  '[\\pL_]',
  '[^[:space:]\\d]',
  '\\x41',
  '\\x{1F600}',
  '\\101',
  '\\Qa.*\\E',
  '\\t',
  '\\n',
  '\\.',
  '\\-',
  '\\/',
  '{',
  '}',
  'a{,2}',
  '\\b',
  '^',
  '$',
  '\\A',
  '\\z',
];

const anyPattern: fc.Arbitrary<string> = fc.letrec<{ pattern: string; part: string }>((tie) => ({
  part: fc.oneof(
    { maxDepth: 4 },
    fc.constantFrom(...PARTS),
    tie('pattern').map((inner) => `(${inner})`),
    tie('pattern').map((inner) => `(?i:${inner})`),
    tie('pattern').map((inner) => `(?s-m:${inner})`),
    tie('pattern').map((inner) => `(?P<name>${inner})`.replaceAll('name', `n${inner.length}`)),
    tie('pattern').map((inner) => `(?m)${inner}`),
    fc
      .tuple(tie('pattern'), fc.constantFrom('*', '+', '?', '*?', '{2}', '{0,2}', '{1,}?'))
      .map(([inner, times]) => `(?:${inner})${times}`),
    fc.tuple(tie('pattern'), tie('pattern')).map(([one, other]) => `(?:${one}|${other})`),
  ),
  pattern: fc.array(tie('part'), { minLength: 1, maxLength: 4 }).map((parts) => parts.join('')),
})).pattern;

const anyText = fc
  .array(fc.constantFrom(...'aAbsSkKzZ019_-./"{}[]\\ \t\n\r\v\u00a0éÉΩωſK😀$^*x', '\u2028', 'a{,2}', 'a.*'), {
    maxLength: 5,
  })
  .map((parts) => parts.join(''));

describe('a pattern in published schemas', () => {
  test.each([
    ['(?i)a', 'A', true],
    ['(?i)s', 'ſ', true],
    ['(?i)[[:lower:]]+', 'AbK', true],
    ['\\pL+', 'éΩ', true],
    ['[[:alpha:]]+', 'é', false],
    ['\\s', '\u00a0', false],
    ['\\s', '\v', false],
    ['.', '\r', true],
    ['.', '\n', false],
    ['(?s).', '\n', true],
    ['\\Qa|b\\E', 'a|b', true],
    ['[^a]', '\n', true],
    ['KS-[0-9]{2,3}', 'KS-04', true],
  ])('%j: %j matches: %p', (pattern, text, fits) => {
    const published = asEcmaPattern(pattern);
    expect(published).not.toBeNull();
    expect(compilePattern(pattern).matches(text)).toBe(fits);
    expect(matchesAsPublished(published ?? '', text)).toBe(fits);
  });

  test.each([['(?i)é'], ['\\C'], ['(?i)\\pL'], ['(?i)[a-ÿ]']])(
    '%j is said in no pattern of ECMA-262',
    (pattern) => {
      expect(asEcmaPattern(pattern)).toBeNull();
    },
  );

  test('accepts the texts that the engine accepts', () => {
    let said = 0;
    fc.assert(
      fc.property(anyPattern, fc.array(anyText, { minLength: 5, maxLength: 30 }), (pattern, texts) => {
        const published = asEcmaPattern(pattern);
        if (published === null) return;
        said++;
        const compiled = compilePattern(pattern);
        for (const text of texts)
          expect([pattern, published, text, matchesAsPublished(published, text)]).toEqual([
            pattern,
            published,
            text,
            compiled.matches(text),
          ]);
      }),
      rounds(400),
    );
    expect(said).toBeGreaterThan(rounds(400).numRuns / 10);
  });
});
