import { describe, expect, test } from '@jest/globals';
import { parse, print, withDesignName } from '@isomeros/core/notation';
import fc from 'fast-check';
import { anyModel } from '../support/models.js';
import { kestrelText, toolShedText } from '../support/samples.js';
import { rounds } from '../support/rounds.js';

describe('print', () => {
  test('parse reads back exactly the model that was printed', () => {
    fc.assert(
      fc.property(anyModel, (model) => {
        const { model: read, diagnostics } = parse(print(model));
        expect(diagnostics).toEqual([]);
        expect(read).toEqual(model);
      }),
      rounds(200),
    );
  });

  test('printing what was read gives the canonical text again', () => {
    fc.assert(
      fc.property(anyModel, (model) => {
        const text = print(model);
        expect(print(parse(text).model)).toBe(text);
      }),
      rounds(200),
    );
  });

  test.each([
    ['kestrel sound ferries', kestrelText],
    ['tool shed', toolShedText],
  ])('the sample %s is sound and canonical', (_name, text) => {
    const { model, diagnostics } = parse(text);
    expect(diagnostics).toEqual([]);
    expect(print(model)).toBe(text);
  });

  test('reads any text without throwing', () => {
    const fragment = fc.oneof(
      fc.string({ unit: 'binary', maxLength: 12 }),
      fc.constantFrom(
        'entity ',
        'value ',
        'each A ',
        'owns many ',
        '\n',
        '  ',
        ': ',
        'text(',
        '..',
        '"',
        ', key',
        '#',
        'A',
        'b',
        'choice(',
        ')',
        '__proto__',
      ),
    );
    fc.assert(
      fc.property(fc.array(fragment, { maxLength: 40 }), (parts) => {
        const text = parts.join('');
        const { diagnostics } = parse(text);
        const lines = text.split(/\r\n|\n|\r/);
        for (const { place } of diagnostics) {
          expect(place.line).toBeLessThanOrEqual(lines.length);
          expect(place.column).toBeLessThanOrEqual((lines[place.line - 1] ?? '').length + 1);
        }
      }),
      rounds(500),
    );
  });
});

describe('withDesignName', () => {
  test.each([
    ['', 'design "New"\n'],
    ['entity A\n', 'design "New"\n\nentity A\n'],
    ['design "Old"\nentity A\n', 'design "New"\nentity A\n'],
    ['# about it\ndesign "Old" "A description"\n', '# about it\ndesign "New" "A description"\n'],
    ['design Old\nentity A', 'design "New"\nentity A'],
  ])('in %j gives %j', (before, after) => {
    expect(withDesignName(before, 'New')).toBe(after);
  });

  test('a name with quotes and dollars is kept as it is', () => {
    const text = withDesignName('design "Old"\n', 'a "quoted" $& name');
    expect(parse(text).model.name).toBe('a "quoted" $& name');
  });
});
