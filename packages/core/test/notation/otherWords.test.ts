import { describe, expect, test } from '@jest/globals';
import { parse, type Diagnostic, type Fix } from '@isomeros/core/notation';

/** A text with a fix put in. */
function withFix(text: string, { place, replacement }: Fix): string {
  const lines = text.split('\n');
  const line = lines[place.line - 1] ?? '';
  lines[place.line - 1] =
    line.slice(0, place.column - 1) + replacement + line.slice(place.column - 1 + place.length);
  return lines.join('\n');
}

const errorsOf = (text: string): readonly Diagnostic[] => parse(text).diagnostics;

/** The texts that the fixes of the first error lead to, each mended on by the likeliest fix until it is sound. */
function mended(text: string): readonly string[] {
  const first = errorsOf(text).find(({ fixes }) => fixes.length > 0);
  return (first?.fixes ?? []).map((fix) => {
    let next = withFix(text, fix);
    for (let steps = 0; steps < 6; steps++) {
      const likeliest = errorsOf(next).flatMap(({ fixes }) => fixes)[0];
      if (likeliest === undefined) break;
      next = withFix(next, likeliest);
    }
    return next;
  });
}

describe('attributes as they are written elsewhere', () => {
  const around = (line: string): string => `entity Route\n${line}`;
  test.each<readonly [string, ...string[]]>([
    ['  name: string', '  name: text'],
    ['  name: String', '  name: text'],
    ['  name: str, required', '  name: text, required'],
    ['  name: varchar(80)', '  name: text(..80)'],
    ['  name: text(80)', '  name: text(..80)', '  name: text(80..80)'],
    ['  size: int', '  size: integer'],
    ['  size: bigint', '  size: integer'],
    ['  size: number', '  size: integer', '  size: decimal'],
    ['  size: float', '  size: decimal'],
    ['  price: decimal(10, 2)', '  price: decimal(scale 2)'],
    ['  open: bool', '  open: boolean'],
    ['  at: datetime', '  at: instant'],
    ['  at: timestamp', '  at: instant'],
    ['  state: enum(open, closed)', '  state: choice(open, closed)'],
    ['  site: url', '  site: uri'],
    ['  token: guid', '  token: uuid'],
    ['  data: object', '  data: json'],
    ['  tags: text[]', '  tags: list of text'],
    ['  tags: string[], required', '  tags: list of text, required'],
    ['  tags: text(1..9)[]', '  tags: list of text(1..9)'],
    ['  name: text, optional', '  name: text'],
    ['  name: text, nullable, unique', '  name: text, unique'],
    ['  name: text?', '  name: text'],
    ['  name: text, not null', '  name: text, required'],
    ['  name: text, mandatory', '  name: text, required'],
    ['  name: text, private', '  name: text, write-only', '  name: text'],
    ['  name: text, hidden', '  name: text, write-only', '  name: text'],
    ['  code: text, primary key', '  code: text, key'],
    ['  code: text, pk', '  code: text, key'],
    ['  id: uuid primary key', '  id: uuid, key'],
    ['  id: integer, primary key, auto increment', '  id: integer, key, generated'],
    ['  name: text, readonly', '  name: text, read-only'],
    ['  name: text, immutable', '  name: text, fixed'],
    ['  name: text, indexed', '  name: text'],
    ['  name: text required', '  name: text, required'],
    ['  name text', '  name: text'],
    ['  string name', '  name: text'],
    ['  name: text;', '  name: text'],
    ["  name: text, default 'north'", '  name: text, default "north"'],
    ['  size: integer, default = 3', '  size: integer, default  3'],
  ])('%s', (written, ...meant) => {
    expect(mended(around(written))).toEqual(meant.map(around));
    for (const text of meant) expect(errorsOf(around(text))).toEqual([]);
  });
});

describe('statements as they are written elsewhere', () => {
  test.each<readonly [string, string]>([
    ['entity Route {\n  name: text\n}', 'entity Route\n  name: text\n'],
    ['class Route\n  name: text', 'entity Route\n  name: text'],
    ['table Route\n  name: text', 'entity Route\n  name: text'],
    ['model Route\n  name: text', 'entity Route\n  name: text'],
    ['Entity Route\n  name: text', 'entity Route\n  name: text'],
    ['entiy Route\n  name: text', 'entity Route\n  name: text'],
    ['project "Ferries"', 'design "Ferries"'],
  ])('%j', (written, meant) => {
    expect(mended(written)).toEqual([meant]);
    expect(errorsOf(meant)).toEqual([]);
  });
});

describe('sentences as they are said elsewhere', () => {
  const ENTITIES = 'entity Route\n  name: text\n\nentity Sailing\n  berth: text\n\n';
  const owns = 'each Route owns many Sailing';
  const back = 'each Sailing refers to one Route as route';
  const pairs = 'each Route pairs with many Sailing';
  test.each<readonly [string, ...string[]]>([
    ['each Route has many Sailing', owns, back, pairs],
    [
      'each Route has many Sailing as trips',
      `${owns} as trips`,
      `${back}, back as trips`,
      `${pairs} as trips`,
    ],
    ['Route has many Sailing', owns, back, pairs],
    ['  Route has many Sailing', owns, back, pairs],
    [
      'each Route has many Sailing as trips "what it is for"',
      `${owns} as trips "what it is for"`,
      `${back}, back as trips "what it is for"`,
      `${pairs} as trips "what it is for"`,
    ],
    ['each route has many sailing', owns, back, pairs],
    ['each Route contains many Sailings', owns, back.replace('Sailing', 'Sailing'), pairs],
    [
      'each Route has one Sailing',
      'each Route owns one Sailing',
      'each Route owns optional Sailing',
      'each Route refers to one Sailing',
    ],
    [
      'each Route has a Sailing',
      'each Route owns one Sailing',
      'each Route owns optional Sailing',
      'each Route refers to one Sailing',
    ],
    [
      'each Sailing belongs to Route',
      'each Route owns many Sailing as sailings',
      'each Sailing refers to one Route',
    ],
    [
      'Sailing belongs to Route',
      'each Route owns many Sailing as sailings',
      'each Sailing refers to one Route',
    ],
    [
      'each Sailing references Route',
      'each Sailing refers to one Route',
      'each Sailing refers to optional Route',
    ],
    [
      'each Sailing refers to Route',
      'each Sailing refers to one Route',
      'each Sailing refers to optional Route',
    ],
    ['each Route refers to many Sailing', pairs, back],
    ['each Route owns Sailing', owns, 'each Route owns one Sailing', 'each Route owns optional Sailing'],
    ['each Route pairs with Sailing', pairs],
    ['Route many to many Sailing', pairs],
    ['Route owns many Sailing as trips', `${owns} as trips`],
    ['every Route owns many Sailing', owns],
  ])('%s', (written, ...meant) => {
    const found = mended(ENTITIES + written);
    expect(found).toEqual(meant.map((line) => ENTITIES + line));
    for (const text of found) expect(errorsOf(text)).toEqual([]);
  });

  test('each meaning is its own fix, and says what it implies', () => {
    const [first] = errorsOf(`${ENTITIES}each Route has many Sailing`);
    expect(first?.fixes.map(({ title, means }) => [title, means])).toEqual([
      ['Use owns many', 'each is removed with its owner'],
      ['Use the other refers to it', 'each stands alone'],
      ['Use pairs with many', 'many on both sides'],
    ]);
  });
});
