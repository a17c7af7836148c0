import { describe, expect, test } from '@jest/globals';
import { codePointLength, compilePattern, scalarText } from '@isomeros/core/model';
import { Random, seed } from '@isomeros/core/seeding';
import fc from 'fast-check';
import { sampleText } from '../../src/seeding/pattern.js';
import { NOW } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';

const PATTERNS = [
  '',
  '[A-Z]+',
  'KS-[0-9]{2,3}',
  '^[a-z0-9](-?[a-z0-9])*$',
  '\\S(.*\\S)?',
  '\\p{L}+',
  '\\pN\\PN',
  '\\p{Greek}{3,5}',
  '\\D+',
  '\\W{2}',
  '[^\\s,]+',
  '[]a]+',
  '[^]a]+',
  '[\\]\\-x]{4}',
  '[[:alpha:]]{3}-[[:digit:][:space:]]{4}',
  '(?i)abc|def',
  '(?P<letters>a|bb)+(?:c)?',
  '(?<named>x)y??',
  '\\Qa.b\\E\\.',
  '\\x41\\x{1F600}\\101',
  '\\bferry\\b',
  '\\Afrom\\tto\\z',
  '(abc|abcdef){2}',
  '(\\d{3})?',
  '\\w+(\\.\\w+)*@\\w+\\.[a-z]{2,}',
  '(a+)+b',
  '(((a*)*)*)*b',
  '((a{0,9}){0,9}){0,9}',
  '(a?){1000}',
  `${'(?:'.repeat(400)}a${')*'.repeat(400)}`,
  'a'.repeat(50_000),
  `[${'a-z'.repeat(2_000)}]+`,
  Array.from({ length: 5_000 }, (_, index) => `w${index}`).join('|'),
  'a*b*c*'.repeat(2_000),
];

describe('sampleText', () => {
  test.each(PATTERNS)('gives texts that match %s', (pattern) => {
    const random = new Random(7);
    for (let time = 0; time < 3; time++) {
      const text = sampleText(pattern, 0, 100_000, random);
      expect([text, text !== null && compilePattern(pattern).matches(text)]).toEqual([text, true]);
    }
  });

  test.each<readonly [string, number, number]>([
    ['[a-z]+', 5, 5],
    ['(ab)*c?', 7, 9],
    ['\\p{L}{1,80}', 40, 60],
    ['a{2}|b{9}|c{20}', 8, 10],
    ['(x|yy|zzz){0,50}', 30, 31],
  ])('of %s texts of %i to %i characters', (pattern, min, max) => {
    const random = new Random(3);
    for (let time = 0; time < 20; time++) {
      const length = codePointLength(sampleText(pattern, min, max, random) ?? '');
      expect(length).toBeGreaterThanOrEqual(min);
      expect(length).toBeLessThanOrEqual(max);
    }
  });

  test('what nothing matches is told, not looked for without end', () => {
    const random = new Random(1);
    for (const pattern of ['[^\\x00-\\x{10FFFF}]', 'a\\bb', '(abc){3}', 'a{1000}'])
      expect(sampleText(pattern, 0, 4, random)).toBeNull();
  });

  const piece = fc.constantFrom('a', 'b', '[0-9]', '\\w', '.', '\\.', 'é');
  const pattern = fc.letrec<{ node: string }>((tie) => ({
    node: fc.oneof(
      { depthSize: 'small', maxDepth: 4 },
      piece,
      fc.array(tie('node'), { maxLength: 4 }).map((parts) => parts.join('')),
      fc.array(tie('node'), { minLength: 1, maxLength: 3 }).map((parts) => `(${parts.join('|')})`),
      fc
        .tuple(tie('node'), fc.constantFrom('*', '+', '?', '{2}', '{1,3}', '{2,}'))
        .map(([of, times]) => `(?:${of})${times}`),
    ),
  })).node;

  test('any pattern that people put together is matched by what it gives', () => {
    fc.assert(
      fc.property(pattern, fc.nat(), (source, number) => {
        const text = sampleText(source, 0, 1_000, new Random(number));
        expect(text !== null && compilePattern(source).matches(text)).toBe(true);
      }),
      rounds(400),
    );
  });
});

describe('seed records', () => {
  const options = { seed: 42, counts: {}, now: NOW };

  test('of a pattern that nothing was found for say so, and so does what needs them', () => {
    const text = `entity Berth
  code: text(1..3), required, pattern "(abc){2}"

entity Lamp

entity Post

each Berth owns many Lamp as lamps
each Post refers to one Berth as berth`;
    const { rows, shortfalls } = seed(modelOf(text), options);
    expect(rows).toEqual([]);
    expect(shortfalls).toEqual([
      { entity: 'Berth', wanted: 12, made: 0, why: 'No value was found for code that matches (abc){2}.' },
      { entity: 'Lamp', wanted: 12, made: 0, why: 'There is no Berth, which it needs.' },
      { entity: 'Post', wanted: 12, made: 0, why: 'There is no Berth, which it needs.' },
    ]);
  });

  test('have what the server makes: always an id, and times in the order in which they were made', () => {
    const text = `entity Route
  ref: uuid, generated
  createdAt: instant, generated
  changedAt: instant, touched

entity Sailing
  createdAt: instant, generated, unique

each Route owns many Sailing as sailings`;
    const { rows, shortfalls } = seed(modelOf(text), options);
    expect(shortfalls).toEqual([]);
    let before = 0;
    for (const { entity, values } of rows) {
      const created = Date.parse(scalarText(values[`${entity}.createdAt`]));
      expect(created).toBeGreaterThan(before);
      expect(created).toBeLessThanOrEqual(NOW);
      before = created;
      if (entity !== 'Route') continue;
      expect(values['Route.ref']).toMatch(/^[0-9a-f-]{36}$/);
      const changed = Date.parse(scalarText(values['Route.changedAt']));
      expect(changed).toBeGreaterThanOrEqual(created);
      expect(changed).toBeLessThanOrEqual(NOW);
    }
    expect(rows.some(({ values }) => values['Route.createdAt'] !== values['Route.changedAt'])).toBe(true);
  });
});
