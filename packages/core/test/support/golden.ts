import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from '@jest/globals';

const folder = join(import.meta.dirname, '../golden');

/** Compares with a file that was read and found right. `UPDATE_GOLDEN=1` writes it anew, to be read again. */
export const expectGolden = (name: string, actual: unknown): void =>
  expectGoldenText(
    join(folder, name),
    typeof actual === 'string' ? actual : `${JSON.stringify(actual, null, 1)}\n`,
  );

/** The same for a text in a file of its own. */
export function expectGoldenText(file: string, text: string): void {
  if (process.env['UPDATE_GOLDEN'] === '1') writeFileSync(file, text);
  expect(text).toBe(readFileSync(file, 'utf8'));
}
