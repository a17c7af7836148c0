import { describe, expect, test } from '@jest/globals';
import { derive } from '@isomeros/core/derivation';
import { publicationSource } from '@isomeros/core/engine';
import { readSql } from '@isomeros/core/intake';
import type { Model } from '@isomeros/core/model';
import { PUBLICATION_FORMATS, publish } from '@isomeros/core/publication';
import { MAIN } from '../support/arrangement.js';
import { modelOf } from '../support/models.js';
import { kestrelText, toolShedText } from '../support/samples.js';

const DIALECTS = ['mariadb.sql', 'postgresql.sql'] as const;

const tablesOf = (model: Model, dialect: (typeof DIALECTS)[number]): string =>
  publish(publicationSource(derive(model, MAIN), model, []), dialect, { mock: null });

const PLAIN = `entity Depot
  code: text(2..8), key
  name: text(..300), required, unique
  opened: date
  kind: choice(small, "very large"), default small

entity Bus
  seats: integer(1..80), required
  price: decimal(0..999.99, scale 2), default 10.5
  number: uuid
  isOld: boolean, default false
  label: text(..10)
  title: text, computed label & "-" & label
  changedAt: instant, generated

entity Driver
  email: email, required, unique

each Depot owns many Bus as buses, back as depot
each Driver refers to optional Depot as home, back as drivers, on remove detach
each Driver refers to optional Bus as bus, back as drivers
each Bus pairs with many Driver as reserves, back as buses
`;

describe.each(DIALECTS)('tables in %s', (dialect) => {
  test.each([
    ['the ferries', kestrelText],
    ['the tool shed', toolShedText],
    ['a model of all that tables say', PLAIN],
  ])('of %s are read as what is written so again', (_name, text) => {
    const model = modelOf(text);
    const written = tablesOf(model, dialect);
    const read = readSql(written, model.name);
    expect([read.problem, read.leftOut]).toEqual([null, []]);
    expect(tablesOf(read.model, dialect)).toBe(written);
  });

  test('keep what they say of a model', () => {
    const { text } = readSql(tablesOf(modelOf(PLAIN), dialect), 'Buses');
    for (const line of [
      '  code: text(2..8), key',
      '  name: text(..300), required, unique',
      '  kind: choice(small, "very large"), default small',
      '  seats: integer(1..80), required',
      '  price: decimal(0..999.99, scale 2), default 10.5',
      '  title: text, computed label & "-" & label',
      'each Depot owns many Bus as buses, back as depot',
      'each Driver refers to optional Depot as home, back as drivers, on remove detach',
    ])
      expect(text).toContain(line);
  });

  test('say a key within an owner as a composite, and what they cannot say beside them', () => {
    const model = modelOf(`entity Ship
  code: text(2..8), key

entity Cabin
  number: integer, key within ship
  secret: text(4..8), write-only
  status: choice(free, taken), default free
    take: free -> taken

entity Guest
  name: text

each Ship owns many Cabin as cabins, back as ship
each Guest refers to optional Cabin as cabin, back as guests
`);
    const read = readSql(tablesOf(model, dialect), model.name);
    expect(read.text).toContain('  number: integer, key within ship');
    expect(tablesOf(read.model, dialect)).toBe(tablesOf(model, dialect));
    const written = tablesOf(model, dialect).replaceAll('`', '"');
    expect(written).toContain('PRIMARY KEY ("ship_code", "number")');
    expect(written).toContain(
      'FOREIGN KEY ("cabin_ship_code", "cabin_number") REFERENCES "cabins" ("ship_code", "number")',
    );
    const unsaid = PUBLICATION_FORMATS[dialect].cannotSay(publicationSource(derive(model, MAIN), model, []));
    expect(unsaid).toEqual([
      'What lists of related records are called, and whether there are any, is not here.',
      'Cabin.secret is never returned.',
      'Cabin.status moves along its life cycle only.',
    ]);
  });
});
