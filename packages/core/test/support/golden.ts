import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from '@jest/globals';

const folder = join(import.meta.dirname, '../golden');

/** Compares with a file that was read and found right. `UPDATE_GOLDEN=1` writes it anew, to be read again. */
export function expectGolden(name: string, actual: unknown): void {
  const text = `${JSON.stringify(actual, null, 1)}\n`;
  const file = join(folder, name);
  if (process.env['UPDATE_GOLDEN'] === '1') writeFileSync(file, text);
  expect(text).toBe(readFileSync(file, 'utf8'));
}
