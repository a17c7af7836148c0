import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { placeOfEffect, printEffect, readEffect, type CustomPlace } from '@isomeros/core/arrangement';
import { kestrelText } from '../support/samples.js';
import { modelOf } from '../support/models.js';

const text = readFileSync(join(import.meta.dirname, '../../../../docs/operations.md'), 'utf8');
const PLACES: Readonly<Record<string, CustomPlace>> = {
  'At the entry': 'entry',
  'On a collection': 'collection',
  'On an item': 'item',
};
const MODEL = modelOf(kestrelText);

/** The lines of each table, with the heading above. */
const documented = text.split(/^## /m).flatMap((section) => {
  const [heading = ''] = section.split('\n');
  return [...section.matchAll(/^\| `([^`]+)` \|/gm)].map(([, line = '']) => [heading, line] as const);
});

describe('the lines of operations that are documented', () => {
  test('are there for every place', () => {
    expect(new Set(documented.map(([heading]) => heading))).toEqual(new Set(Object.keys(PLACES)));
  });

  test.each(documented)('%s: %s', (heading, line) => {
    const about = PLACES[heading] === 'entry' ? null : line.startsWith('verify') ? 'CrewMember' : 'Sailing';
    const read = readEffect(MODEL, about, line);
    expect(read).toMatchObject({ ok: true });
    if (!read.ok) return;
    expect(placeOfEffect(read.effect)).toBe(PLACES[heading]);
    expect(printEffect(MODEL, about, read.effect)).toBe(line);
  });
});
