import { describe, expect, test } from '@jest/globals';
import { readJson } from '@isomeros/core/model';
import fc from 'fast-check';

describe('readJson', () => {
  test('reads every JSON text the platform reads, to the same value', () => {
    fc.assert(
      fc.property(fc.json(), (text) => {
        const read = readJson(text);
        const exact = !/\d{16}/.test(text);
        if (read.ok) expect(JSON.parse(JSON.stringify(read.value))).toEqual(JSON.parse(text));
        else expect(exact && read.problem.code === 'json.syntax').toBe(false);
      }),
      { numRuns: 300 },
    );
  });

  test('refuses every text the platform refuses', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom(
            '{',
            '}',
            '[',
            ']',
            ',',
            ':',
            '"a"',
            '1',
            'true',
            'null',
            ' ',
            '\\',
            '-',
            '.',
            'e',
            '\n',
          ),
          { maxLength: 12 },
        ),
        (parts) => {
          const text = parts.join('');
          let valid = true;
          try {
            JSON.parse(text);
          } catch {
            valid = false;
          }
          if (!valid) expect(readJson(text).ok).toBe(false);
        },
      ),
      { numRuns: 500 },
    );
  });

  test.each([
    ['{"a":1,"a":2}', 'json.duplicate', 1, 8],
    ['{"a":1,"\\u0061":2}', 'json.duplicate', 1, 8],
    ['{\n  "a": 1,\n}', 'json.syntax', 3, 1],
    ['['.repeat(40), 'json.depth', 1, 33],
    ['0.12345678901234567890', 'json.precision', 1, 1],
    ['12345678901234567890', 'json.precision', 1, 1],
    ['', 'json.syntax', 1, 1],
    ['"\u0001"', 'json.syntax', 1, 1],
    ['01', 'json.syntax', 1, 2],
  ])('%s is %s at line %i, column %i', (text, code, line, column) => {
    const read = readJson(text);
    expect(
      read.ok ? null : { code: read.problem.code, line: read.problem.line, column: read.problem.column },
    ).toEqual({ code, line, column });
  });

  test('__proto__ is a name like any other', () => {
    const read = readJson('{"__proto__":{"admin":true},"constructor":1}');
    expect(read.ok && Object.keys(read.value as object)).toEqual(['__proto__', 'constructor']);
    expect(({} as Record<string, unknown>)['admin']).toBeUndefined();
  });
});
