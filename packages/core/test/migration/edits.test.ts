import { describe, expect, test } from '@jest/globals';
import { findViolations } from '@isomeros/core/engine';
import { migrate } from '@isomeros/core/migration';
import { reconcile } from '@isomeros/core/model';
import { parse } from '@isomeros/core/notation';
import { seed } from '@isomeros/core/seeding';
import { NOW } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const BASE =
  'entity Route\n  name: text(1..60), required\n  length: integer(0..9999)\n\nentity Sailing\n  berth: text(1..4)\n\neach Route owns many Sailing as sailings';

const edit = (from: string, to: string): string => BASE.replace(from, to);

interface Case {
  readonly name: string;
  readonly after: string;
  readonly obstacle?: RegExp;
}

const CASES: readonly Case[] = [
  { name: 'nothing', after: BASE },
  { name: 'a new optional attribute', after: edit('  length', '  note: text\n  length') },
  {
    name: 'a new required attribute with a default',
    after: edit('  length', '  kind: choice(ferry, taxi), required, default ferry\n  length'),
  },
  {
    name: 'a new required attribute without a default',
    after: edit('  length', '  kind: text, required\n  length'),
    obstacle: /Route.*kind is required/,
  },
  { name: 'a wider type', after: edit('text(1..60)', 'text(0..90)') },
  {
    name: 'a narrower type',
    after: edit('text(1..60)', 'text(1..2)'),
    obstacle: /Route.name has values that do not fit/,
  },
  {
    name: 'another type',
    after: edit('integer(0..9999)', 'text'),
    obstacle: /Route.length has values that do not fit/,
  },
  { name: 'a renamed attribute', after: edit('length:', 'distance:') },
  { name: 'a renamed entity', after: BASE.replaceAll('Route', 'Line') },
  {
    name: 'an attribute less',
    after: edit('  length: integer(0..9999)\n', ''),
    obstacle: /Route.length goes, and \d+ records hold it/,
  },
  {
    name: 'a new entity that is owned',
    after: `${BASE}\n\nentity Meal\n\neach Sailing owns many Meal as meals`,
  },
  {
    name: 'a new required slot',
    after: `${BASE}\n\nentity Meal\n\neach Sailing owns one Meal as meal`,
    obstacle: /Sailing must have a Meal, and has none/,
  },
  {
    name: 'an entity less',
    after: 'entity Route\n  name: text(1..60), required\n  length: integer(0..9999)',
    obstacle: /The entity Sailing goes/,
  },
  {
    name: 'no owner any more',
    after: edit('each Route owns many Sailing as sailings', 'each Sailing refers to one Route as route'),
    obstacle: /Sailing.route goes|Sailing.sailings goes/,
  },
];

describe('a model edited while a mock runs', () => {
  const before = modelOf(BASE);
  const { rows } = seed(before, { seed: 3, counts: {}, now: NOW });

  test.each(CASES)('$name', ({ after, obstacle }) => {
    const identities = reconcile(before, modelOf(after));
    const { model } = parse(after, identities);
    const counters = { rid: rows.length, attributes: {} };
    const migrated = migrate(before, model, rows, counters, new Map(), { now: NOW, uuid: () => '' });
    if (obstacle === undefined) {
      expect(migrated.open).toEqual([]);
      expect(findViolations(model, migrated.rows)).toEqual([]);
      expect(migrated.rows).toHaveLength(rows.length);
    } else expect(migrated.open.map(({ message }) => message).join('\n')).toMatch(obstacle);
  });
});
