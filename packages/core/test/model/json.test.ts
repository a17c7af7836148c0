import { describe, expect, test } from '@jest/globals';
import { readJson } from '@isomeros/core/model';
import fc from 'fast-check';
import { rounds } from '../support/rounds.js';

describe('readJson', () => {
  test('reads every JSON text the platform reads, to the same value', () => {
    fc.assert(
      fc.property(fc.json(), (text) => {
        const read = readJson(text);
        const exact = !/\d{16}/.test(text);
        if (read.ok) expect(JSON.parse(JSON.stringify(read.value))).toEqual(JSON.parse(text));
        else expect(exact && read.problem.code === 'json.syntax').toBe(false);
      }),
      rounds(300),
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
      rounds(500),
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
    ['"\\ud800"', 'json.surrogate', 1, 1],
    ['{"a":["x\\udc00y"]}', 'json.surrogate', 1, 7],
    ['{"\\ud800\\ud800":1}', 'json.surrogate', 1, 2],
    ['"\\u12g4"', 'json.syntax', 1, 1],
    ['"open', 'json.syntax', 1, 1],
  ])('%s is %s at line %i, column %i', (text, code, line, column) => {
    const read = readJson(text);
    expect(
      read.ok ? null : { code: read.problem.code, line: read.problem.line, column: read.problem.column },
    ).toEqual({ code, line, column });
  });

  test.each<readonly [string, string, boolean]>([
    ['a string', `"${'a'.repeat(20_000_000)}"`, true],
    ['a string of escapes', `"${'\\n'.repeat(5_000_000)}"`, true],
    ['a string that is not closed', `"${'a'.repeat(20_000_000)}`, false],
    ['a string with a bad escape at its end', `"${'\\n'.repeat(5_000_000)}\\x"`, false],
    ['a whole number', '9'.repeat(5_000_000), false],
    ['a number of zeros with a digit behind them', `1${'0'.repeat(5_000_000)}1`, false],
    ['space', `${' '.repeat(5_000_000)}1`, true],
    ['names', `{${Array.from({ length: 300_000 }, (_, i) => `"n${i}":${i}`).join()}}`, true],
    ['empty objects', `[${'{},'.repeat(1_000_000)}1]`, true],
  ])('%s as long as a body may be is read in one pass', (_what, text, isJson) => {
    expect(readJson(text).ok).toBe(isJson);
  });

  test('a pair of surrogates is one character', () => {
    expect(readJson('"\\ud83d\\ude00"')).toEqual({ ok: true, value: '\u{1f600}' });
  });

  test('__proto__ is a name like any other', () => {
    const read = readJson('{"__proto__":{"admin":true},"constructor":1}');
    expect(read.ok && Object.keys(read.value as object)).toEqual(['__proto__', 'constructor']);
    expect(({} as Record<string, unknown>)['admin']).toBeUndefined();
  });
});
