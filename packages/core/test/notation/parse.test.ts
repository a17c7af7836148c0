import { describe, expect, test } from '@jest/globals';
import { DIAGNOSTIC_CODES, MAX_TEXT_BYTES, parse, type DiagnosticCode } from '@isomeros/core/notation';

interface Case {
  readonly text: string;
  readonly code: DiagnosticCode;
  /** The place as `line:column+length`. */
  readonly at: string;
  /** What the fix puts in, where there is one. */
  readonly fix?: string;
}

const OTHER = '\nentity Other\n  name: text\n';

const lines = (count: number, line: (index: number) => string): string =>
  Array.from({ length: count }, (_, index) => line(index)).join('\n');

const CASES: readonly Case[] = [
  {
    code: 'model.too-large',
    text: `entity A\n${lines(1_001, (index) => `  a${index}: text`)}`,
    at: '1002:3+11',
  },
  { code: 'name.length', text: `entity A\n  ${'a'.repeat(101)}: text`, at: '2:3+101' },
  { code: 'indent.tab', text: 'entity A\n\tname: text', at: '2:1+1', fix: '  ' },
  { code: 'indent.width', text: 'entity A\n    name: text', at: '2:1+4', fix: '  ' },
  { code: 'indent.width', text: '  name: text', at: '1:1+2' },
  { code: 'indent.width', text: 'entity A\n  each A owns many Other', at: '2:1+2', fix: '' },
  { code: 'token.unknown', text: 'entity A\n  name: text; required', at: '2:13+1' },
  { code: 'string.open', text: 'entity A "not closed', at: '1:10+11' },
  { code: 'string.open', text: 'entity A "bad \\q escape"', at: '1:10+15' },
  { code: 'statement.unknown', text: 'entiti A', at: '1:1+6' },
  { code: 'syntax.expected', text: 'entity A\n  name text', at: '2:8+4' },
  { code: 'syntax.expected', text: 'design Untitled', at: '1:8+8' },
  { code: 'syntax.expected', text: 'each A has many Other', at: '1:8+3' },
  { code: 'syntax.extra', text: 'entity A B', at: '1:10+1' },
  { code: 'name.case', text: 'entity crew_member', at: '1:8+11', fix: 'CrewMember' },
  { code: 'name.case', text: 'entity A\n  First: text', at: '2:3+5', fix: 'first' },
  { code: 'name.duplicate', text: 'entity A\n  name: text\n  name: date', at: '3:3+4' },
  { code: 'name.duplicate', text: 'entity A\nvalue A\n  x: text', at: '2:7+1' },
  { code: 'design.duplicate', text: 'design "A"\ndesign "B"', at: '2:8+3' },
  { code: 'type.unknown', text: 'entity A\n  name: txt(1..4)', at: '2:9+3', fix: 'text' },
  { code: 'type.unknown', text: 'entity A\n  other: Other', at: '2:10+5' },
  { code: 'type.range', text: 'entity A\n  name: text(9..4)', at: '2:14+1', fix: '4..9' },
  { code: 'type.range', text: 'entity A\n  name: text(-1..4)', at: '2:9+4' },
  { code: 'type.recursive', text: 'value A\n  b: B\nvalue B\n  a: A', at: '2:3+4' },
  { code: 'choice.duplicate', text: 'entity A\n  kind: choice(x, y, x)', at: '2:22+1' },
  { code: 'flag.unknown', text: 'entity A\n  name: text, requird', at: '2:15+7', fix: 'required' },
  { code: 'flag.duplicate', text: 'entity A\n  name: text, required, required', at: '2:25+8' },
  { code: 'flag.conflict', text: 'entity A\n  name: text, read-only, write-only', at: '2:3+33' },
  { code: 'flag.conflict', text: 'entity A\n  name: text, generated', at: '2:3+21' },
  { code: 'pattern.invalid', text: 'entity A\n  name: text, pattern "["', at: '2:23+3' },
  { code: 'literal.invalid', text: 'entity A\n  kind: choice(x, y), default z', at: '2:23+7' },
  { code: 'key.second', text: 'entity A\n  a: text, key\n  b: text, key', at: '3:12+3' },
  { code: 'key.id', text: 'entity A\n  id: text', at: '2:3+2' },
  { code: 'key.type', text: 'entity A\n  a: json, key', at: '2:6+4' },
  { code: 'entity.unknown', text: 'entity A\neach A owns many Othr', at: '2:18+4', fix: 'Other' },
  { code: 'role.unknown', text: 'entity A\n  label: text, unique within ship', at: '2:30+4' },
  {
    code: 'role.duplicate',
    text: 'entity A\n  other: text\neach A refers to one Other as other',
    at: '3:31+5',
  },
  {
    code: 'role.duplicate',
    text: 'entity A\neach A refers to one Other as o\neach A refers to one Other as o',
    at: '3:1+31',
  },
  {
    code: 'owner.second',
    text: 'entity A\nentity B\neach A owns many Other\neach B owns many Other',
    at: '4:1+22',
  },
  { code: 'owner.cycle', text: 'entity A\nentity B\neach A owns many B\neach B owns many A', at: '3:1+18' },
  {
    code: 'refers.singleton',
    text: 'entity A\nentity B\neach B owns one Other\neach A refers to one Other',
    at: '4:22+5',
  },
  {
    code: 'value.unknown',
    text: 'value Duty\n  role: text\nentity A\neach A pairs with many Other as others, carrying Dty',
    at: '4:50+3',
    fix: 'Duty',
  },
  {
    code: 'refers.singleton',
    text: 'entity A\nentity B\neach A owns one B\neach B pairs with many Other',
    at: '4:6+1',
  },
  { code: 'cycle.misplaced', text: 'entity A\n  name: text\n    go: a -> b', at: '3:5+10' },
  { code: 'cycle.state', text: 'entity A\n  s: choice(a, b), default a\n    go: a -> c', at: '3:14+1' },
  { code: 'cycle.default', text: 'entity A\n  s: choice(a, b)\n    go: a -> b', at: '2:3+15' },
  {
    code: 'cycle.condition',
    text: 'entity A\n  s: choice(a, b), default a\n    go: a -> b when size > 3',
    at: '3:21+4',
  },
  {
    code: 'cycle.condition',
    text: 'entity A\n  size: integer\n  s: choice(a, b), default a\n    go: a -> b when size > now',
    at: '4:21+4',
  },
  {
    code: 'cycle.condition',
    text: 'entity A\n  pin: text, write-only\n  s: choice(a, b), default a\n    go: a -> b when pin = x',
    at: '4:21+3',
  },
  {
    code: 'name.duplicate',
    text: 'entity A\n  s: choice(a, b), default a\n    go: a -> b\n    go: b -> a',
    at: '4:5+10',
  },
  { code: 'computed.invalid', text: 'entity A\n  n: integer, computed m', at: '2:24+1' },
  {
    code: 'remove.rule',
    text: 'entity A\neach A pairs with many Other, on remove cascade',
    at: '2:41+7',
    fix: 'detach',
  },
  {
    code: 'remove.rule',
    text: 'entity A\neach A refers to one Other, on remove detach',
    at: '2:39+6',
    fix: 'restrict',
  },
];

describe('parse', () => {
  test.each(CASES)('reports $code at $at in $text', ({ text, code, at, fix }) => {
    const { diagnostics } = parse(text + OTHER);
    const found = diagnostics.find(
      (diagnostic) =>
        `${diagnostic.place.line}:${diagnostic.place.column}+${diagnostic.place.length}` === at &&
        diagnostic.code === code,
    );
    expect(found === undefined ? diagnostics : found.code).toBe(code);
    if (fix !== undefined) expect(found?.fixes[0]?.replacement).toBe(fix);
  });

  test('every code is reported by a case here, and no other code is', () => {
    const reported = new Set<string>(CASES.map(({ code }) => code));
    reported.add('text.too-large');
    expect([...reported].sort()).toEqual(Object.keys(DIAGNOSTIC_CODES).sort());
  });

  test.each(CASES)('a line with $code leaves its neighbours alone: $text', ({ text }) => {
    const { model } = parse(`entity Before\n  name: text\n\n${text}\n${OTHER}`);
    const names = model.declarations.flatMap((declaration) =>
      'name' in declaration ? [declaration.name] : [],
    );
    expect(names).toContain('Before');
    expect(names).toContain('Other');
  });

  test('fixes can be put in and take their diagnostic away', () => {
    for (const { text, code, fix } of CASES.filter((candidate) => candidate.fix !== undefined)) {
      const lines = (text + OTHER).split('\n');
      const before = parse(lines.join('\n')).diagnostics.filter((diagnostic) => diagnostic.code === code);
      const place = before[0]?.fixes[0]?.place ?? { line: 0, column: 0, length: 0 };
      const line = lines[place.line - 1] ?? '';
      lines[place.line - 1] =
        line.slice(0, place.column - 1) + String(fix) + line.slice(place.column - 1 + place.length);
      const after = parse(lines.join('\n')).diagnostics.filter((diagnostic) => diagnostic.code === code);
      expect([text, after.length]).toEqual([text, before.length - 1]);
    }
  });

  test('a text larger than 1 MiB is refused with that number, and read no further', () => {
    const { model, diagnostics } = parse('entity A\n'.repeat(250_000));
    expect(diagnostics.map(({ code }) => code)).toEqual(['text.too-large']);
    expect(diagnostics[0]?.message).toContain(String(MAX_TEXT_BYTES));
    expect(model.declarations).toEqual([]);
  });

  test.each<readonly [string, string, string]>([
    ['entities', lines(4_001, (i) => `entity E${i}`), '4000 entities and values'],
    [
      'relationships of an entity',
      `entity A\n${lines(1_001, (i) => `each A refers to one A as r${i}`)}`,
      'At most 1000 relationships name one entity; A',
    ],
    [
      'transitions',
      `entity A\n  s: choice(a, b), default a\n${lines(201, (i) => `    t${i}: a -> b`)}`,
      '200 transitions',
    ],
    [
      'options',
      `entity A\n  s: choice(${lines(1_001, (i) => `o${i}`).replaceAll('\n', ', ')})`,
      '1000 options',
    ],
    [
      'unique rules',
      `entity A\n${lines(201, (i) => `  a${i}: text`)}\n${lines(201, (i) => `  unique (a${i}, a0)`)}`,
      '200 unique rules',
    ],
    [
      'names of a unique rule',
      `entity A\n  a: text\n  unique (${'a, '.repeat(16)}a)`,
      '16 attributes and roles',
    ],
    [
      'values inside of each other',
      `${lines(25, (i) => `value V${i}\n  v: V${i + 1}`)}\nvalue V25\n  a: text`,
      '24 deep inside of each other',
    ],
  ])('a model has an end of its %s, which its diagnostic names', (_what, text, words) => {
    const { diagnostics } = parse(text);
    expect(diagnostics.map(({ code }) => code)).toEqual(['model.too-large']);
    expect(diagnostics[0]?.message).toContain(words);
  });

  test.each<readonly [string, string]>([
    ['a list of a list of a list', `entity A\n  a: ${'list of '.repeat(5_000)}text`],
    ['a quoted text of escapes', `design "${'\\n'.repeat(500_000)}"`],
    ['a name with many parts', `entity A\n  ${'a-'.repeat(300_000)}a: text`],
    ['a state that is no word', 'entity A\n  s: choice(a, b), default a\n    go: a -> "("'],
    ['a name nobody can mean', `entity A\neach A owns many ${'B'.repeat(900_000)}`],
    ['names that are not there', `entity A\n${lines(20_000, (i) => `each A owns many Thing${i}`)}`],
    ['values in a circle', lines(4_000, (i) => `value V${i}\n  v: V${(i + 1) % 4_000}`)],
    ['a value that all others hold', lines(4_000, (i) => `value V${i}\n  a: V${i + 1}\n  b: V${i + 2}`)],
  ])('reads %s without going back or down in proportion', (_what, text) => {
    expect(parse(text).diagnostics.length).toBeLessThanOrEqual(20_001);
  });

  test.each([
    '',
    '\n\n',
    '# only a comment',
    '\u0000',
    '\uFEFFentity A',
    'a'.repeat(100_000),
    '('.repeat(50_000),
  ])('reads any text without throwing: %j', (text) => {
    expect(() => parse(text)).not.toThrow();
  });

  test('names of the language are just names', () => {
    const { model, diagnostics } = parse(
      'entity Constructor\n  constructor: text\n  toString: text\n  hasOwnProperty: integer\n\nentity Prototype\n\neach Constructor owns many Prototype as prototype',
    );
    expect(diagnostics).toEqual([]);
    expect(model.declarations.map(({ id }) => id)).toEqual([
      'Constructor',
      'Prototype',
      'Constructor>Prototype:prototype',
    ]);
  });

  test('an entity called __proto__ is refused by its case and read all the same', () => {
    const { model, diagnostics } = parse('entity __proto__\n  name: text');
    expect(diagnostics.map(({ code }) => code)).toEqual(['name.case']);
    expect(model.declarations[0]?.id).toBe('__proto__');
  });
});
