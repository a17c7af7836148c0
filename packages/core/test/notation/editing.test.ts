import { describe, expect, test } from '@jest/globals';
import {
  append,
  findOccurrences,
  format,
  insertBelow,
  occurrenceAt,
  parse,
  print,
  printAttribute,
  removeStatement,
  renameAt,
  replaceStatement,
  suggest,
} from '@isomeros/core/notation';
import fc from 'fast-check';
import { anyModel } from '../support/models.js';
import { kestrelText } from '../support/samples.js';
import { rounds } from '../support/rounds.js';

/** The place of `|` in a text, and the text without it. */
function cursor(marked: string): { text: string; line: number; column: number } {
  const before = marked.slice(0, marked.indexOf('|')).split('\n');
  return { text: marked.replace('|', ''), line: before.length, column: (before.at(-1) ?? '').length + 1 };
}

const BASE = `value Duty
  role: text

entity Sailing
  status: choice(planned, gone), default planned
    cast: planned -> gone when departsAt > now
  departsAt: instant
  unique (vessel, departsAt)

entity Vessel

each Sailing refers to optional Vessel as vessel, back as sailings
each Sailing pairs with many Vessel as tugs, carrying Duty
`;

const at = (place: string): string => BASE.replace(place.replace('|', ''), place);

describe('renameAt', () => {
  test.each([
    ['an entity', at('entity Vess|el'), 'Ship', 3],
    ['an entity, at a use of it', at('optional Vess|el'), 'Ship', 3],
    ['a value', at('carrying Du|ty'), 'Job', 2],
    ['an attribute, also in rules and conditions', at('|departsAt: instant'), 'leavesAt', 3],
    ['a role, also in rules', at('as vess|el,'), 'ship', 2],
    ['a state, also as default and in transitions', at('choice(plan|ned'), 'drafted', 3],
    ['a transition', at('ca|st: planned'), 'leave', 1],
  ])('changes %s everywhere it is used', (_name, marked, name, count) => {
    const { text, line, column } = cursor(marked);
    const result = renameAt(text, line, column, name);
    if (!result.ok) throw new Error(result.message);
    expect(result.places).toHaveLength(count);
    expect(parse(result.text).diagnostics).toEqual([]);
    expect(result.text.match(new RegExp(`\\b${name}\\b`, 'g'))).toHaveLength(result.places.length);
  });

  test.each([
    [at('entity Vess|el'), 'vessel', 'Expected a name in PascalCase.'],
    [at('entity Vess|el'), 'Sailing', 'There is something called Sailing here already.'],
    [at('|departsAt: instant'), 'status', 'There is something called status here already.'],
    [at('ent|ity Vessel'), 'Ship', 'There is no name here that could be changed.'],
  ])('refuses where it must', (marked, name, message) => {
    const { text, line, column } = cursor(marked);
    expect(renameAt(text, line, column, name)).toEqual({ ok: false, message });
  });

  test('there and back again is the same text, for every name of any model', () => {
    fc.assert(
      fc.property(anyModel, fc.nat(), (model, pick) => {
        const text = print(model);
        const found = findOccurrences(text).filter(({ defines }) => defines);
        const chosen = found[pick % found.length];
        if (chosen === undefined) return;
        const other = chosen.kind === 'block' ? 'Brandnew' : 'brandnew';
        const there = renameAt(text, chosen.place.line, chosen.place.column, other);
        if (!there.ok) throw new Error(there.message);
        expect(parse(there.text).diagnostics).toEqual([]);
        const back = renameAt(there.text, chosen.place.line, chosen.place.column, chosen.name);
        expect(back.ok && back.text).toBe(text);
      }),
      rounds(150),
    );
  });

  test('every use leads to its definition', () => {
    const found = findOccurrences(kestrelText);
    const uses = found.filter(({ defines, kind }) => !defines && kind !== 'member');
    const lost = uses.filter(
      ({ symbol }) => !found.some((occurrence) => occurrence.defines && occurrence.symbol === symbol),
    );
    expect(lost).toEqual([]);
    expect(occurrenceAt(found, 1, 1)).toBeNull();
  });
});

describe('suggest', () => {
  const labels = (marked: string): string[] => {
    const { text, line, column } = cursor(marked);
    return suggest(text, line, column).options.map(({ label }) => label);
  };

  test.each([
    ['|', ['entity', 'value', 'each', 'design']],
    [at('each |Sailing refers'), ['Sailing', 'Vessel']],
    [`${BASE}each Sailing |`, ['owns', 'refers to', 'pairs with']],
    [`${BASE}each Sailing owns |`, ['many', 'one', 'optional']],
    [`${BASE}each Sailing refers to |`, ['one', 'optional']],
    [`${BASE}each Sailing pairs with many |`, ['Sailing', 'Vessel']],
    [`${BASE}each Sailing pairs with many Vessel as x, carrying |`, ['Duty']],
    [`${BASE}each Sailing owns many Vessel as x, on remove |`, ['cascade', 'restrict', 'detach']],
    [`${BASE}each Sailing owns many Vessel as x, |`, ['back as', 'on remove']],
    [at('unique (|vessel'), ['status', 'departsAt', 'vessel', 'tugs']],
    [at('default |planned'), ['planned', 'gone']],
    [at('cast: |planned'), ['planned', 'gone']],
    [at('when |departsAt'), ['status', 'departsAt', 'vessel', 'tugs']],
    ['# |', []],
    ['entity A "|', []],
  ])('in %j offers %j', (marked, expected) => {
    expect(labels(marked)).toEqual(expected);
  });

  test('types and values after a colon, flags after a comma', () => {
    expect(labels(at('departsAt: |instant'))).toEqual(expect.arrayContaining(['text', 'instant', 'Duty']));
    expect(
      labels(at('departsAt: instant').replace('departsAt: instant\n', 'departsAt: instant, |\n')),
    ).toEqual(expect.arrayContaining(['required', 'unique', 'fixed', 'default']));
  });

  test('never throws, wherever it is asked', () => {
    fc.assert(
      fc.property(anyModel, fc.nat(), fc.nat(80), (model, line, column) => {
        const text = print(model);
        expect(() => suggest(text, (line % text.split('\n').length) + 1, column + 1)).not.toThrow();
      }),
      rounds(100),
    );
  });
});

describe('format', () => {
  test('lays a sound text out as it is printed, comments kept', () => {
    const messy =
      '# about A\nentity A\n  name: text(1 .. 4),required # the name\n\n\n\neach A refers to optional A as other';
    expect(format(messy)).toEqual({
      ok: true,
      text: '# about A\nentity A\n  # the name\n  name: text(1..4), required\n\neach A refers to optional A as other\n',
    });
  });

  test('leaves a text with errors alone', () => {
    expect(format('entity A\n  what')).toMatchObject({ ok: false });
  });
});

describe('edits of single statements', () => {
  const text = '# top\nentity A\n  # about name\n  name: text  # behind\n  size: integer\n\nentity B\n';
  const placesOf = (source: string): ReturnType<typeof parse>['places'] => parse(source).places;
  const place = (
    source: string,
    id: string,
  ): { line: number; endLine: number; column: number; length: number } => {
    const found = placesOf(source).get(id);
    if (found === undefined) throw new Error(`There is no ${id}.`);
    return found;
  };

  test('replace keeps comments and everything else', () => {
    expect(replaceStatement(text, place(text, 'A.name'), 'name: text, required')).toBe(
      text.replace('name: text ', 'name: text, required '),
    );
  });

  test('remove takes the comments above with it', () => {
    expect(removeStatement(text, place(text, 'A.name'))).toBe(
      '# top\nentity A\n  size: integer\n\nentity B\n',
    );
    expect(removeStatement(text, place(text, 'A'))).toBe('entity B\n');
  });

  test('insert and append put lines where they belong', () => {
    expect(insertBelow(text, place(text, 'A'), ['note: text'])).toBe(
      text.replace('  size: integer\n', '  size: integer\n  note: text\n'),
    );
    expect(append(text, 'each A owns many B as bs')).toBe(`${text}\neach A owns many B as bs\n`);
    expect(append('', 'entity A')).toBe('entity A\n');
  });

  test('an attribute of any model can be replaced by itself, and nothing changes', () => {
    fc.assert(
      fc.property(anyModel, (model) => {
        const source = print(model);
        const { model: read, places } = parse(source);
        for (const declaration of read.declarations) {
          if (declaration.kind !== 'entity') continue;
          for (const attribute of declaration.attributes) {
            const found = places.get(attribute.id);
            if (found !== undefined)
              expect(replaceStatement(source, found, printAttribute(attribute))).toBe(source);
          }
        }
      }),
      rounds(80),
    );
  });
});
