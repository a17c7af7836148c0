import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import { parse } from '@isomeros/core/notation';

const root = join(import.meta.dirname, '../../../..');

/** What stands between fences in a page, where it is a model. */
const models = (page: string): readonly string[] =>
  [...readFileSync(join(root, page), 'utf8').matchAll(/^```\n((?:design|entity)[\s\S]*?)^```$/gm)].map(
    ([, text]) => text ?? '',
  );

test.each(['README.md', 'docs/notation.md'])('the models in %s have no error', (page) => {
  const found = models(page);
  expect(found.length).toBeGreaterThan(0);
  for (const text of found) {
    const sailings = text.includes('entity Sailing') ? text : `${text}\nentity Sailing\n  berth: text\n`;
    expect([text, parse(sailings).diagnostics]).toEqual([text, []]);
  }
});
