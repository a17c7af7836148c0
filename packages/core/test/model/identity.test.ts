import { describe, expect, test } from '@jest/globals';
import { identitiesOf, reconcile } from '@isomeros/core/model';
import { parse } from '@isomeros/core/notation';
import fc from 'fast-check';
import { anyModel, modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';

const BASE =
  'entity Route\n  name: text\n  length: integer\n\nentity Sailing\n  departsAt: instant\n\neach Route owns many Sailing as sailings';

interface Case {
  readonly name: string;
  readonly after: string;
  /** Addresses of the new text with the identity they must have. */
  readonly expected: Readonly<Record<string, string>>;
}

const CASES: readonly Case[] = [
  {
    name: 'nothing changes',
    after: BASE,
    expected: {
      Route: 'Route',
      'Route.name': 'Route.name',
      'Route>Sailing:sailings': 'Route>Sailing:sailings',
    },
  },
  {
    name: 'an attribute is renamed',
    after: BASE.replace('name: text', 'title: text'),
    expected: { 'Route.title': 'Route.name', 'Route.length': 'Route.length' },
  },
  {
    name: 'an entity is renamed, with its attributes and relationships',
    after: BASE.replaceAll('Sailing', 'Crossing'),
    expected: {
      Crossing: 'Sailing',
      'Crossing.departsAt': 'Sailing.departsAt',
      'Route>Crossing:sailings': 'Route>Sailing:sailings',
    },
  },
  {
    name: 'an attribute of another type in its place is another attribute',
    after: BASE.replace('name: text', 'number: integer'),
    expected: { 'Route.number': 'Route.number' },
  },
  {
    name: 'two names for two names are no rename',
    after: BASE.replace('name: text', 'title: text').replace('length: integer', 'distance: integer'),
    expected: { 'Route.title': 'Route.title', 'Route.distance': 'Route.distance' },
  },
];

describe('reconcile', () => {
  test.each(CASES)('$name', ({ after, expected }) => {
    const identities = reconcile(modelOf(BASE), modelOf(after));
    for (const [address, id] of Object.entries(expected))
      expect([address, identities[address]]).toEqual([address, id]);
  });

  test('a name that is used again for something else gets an identity of its own', () => {
    const renamed = reconcile(modelOf(BASE), modelOf(BASE.replace('name: text', 'title: text')));
    const before = parse(BASE.replace('name: text', 'title: text'), renamed).model;
    const after = reconcile(before, modelOf(BASE.replace('name: text', 'title: text\n  name: text')));
    expect(after['Route.title']).toBe('Route.name');
    expect(after['Route.name']).toBe('Route.name~2');
  });

  test('identities of any model are kept when it is saved unchanged, and never shared', () => {
    fc.assert(
      fc.property(anyModel, anyModel, (first, second) => {
        const known = identitiesOf(first);
        expect(Object.values(reconcile(first, first)).sort()).toEqual([...known.values()].sort());
        const next = Object.values(reconcile(first, second));
        expect(new Set(next).size).toBe(next.length);
      }),
      rounds(100),
    );
  });
});
