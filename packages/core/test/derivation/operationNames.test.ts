import { describe, expect, test } from '@jest/globals';
import {
  arrangementOf,
  NO_CHOICES,
  plainArrangement,
  readEffect,
  type SettingsById,
} from '@isomeros/core/arrangement';
import type { Contract } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { indexModel } from '@isomeros/core/model';
import { arranged } from '../support/arrangement.js';
import { modelOf } from '../support/models.js';

const model = modelOf('entity Berth\n  name: text(1..20)\n  open: boolean, default true\n');
const idsOf = ({ operations }: Contract): readonly string[] => operations.map(({ id }) => id);

test("the house's words stand for what operations do, and for nothing else", () => {
  const words = {
    listWord: 'find',
    readWord: 'get',
    createWord: 'add',
    changeWord: 'update',
    removeWord: 'delete',
  };
  expect(idsOf(derive(model, arranged(words)))).toEqual([
    'getEntry',
    'findBerths',
    'addBerth',
    'getBerth',
    'replaceBerth',
    'updateBerth',
    'deleteBerth',
  ]);
});

describe('a name of its own', () => {
  const [collection, item] = derive(model, arranged({}))
    .resources.filter(({ entity }) => entity === 'Berth')
    .map(({ id }) => id);
  const named = (names: Readonly<Record<string, string>>): Contract => {
    const operations = Object.entries(names).map(([key, operationName]) => [key, { operationName }]);
    return derive(model, arranged({}, {}, Object.fromEntries(operations) as SettingsById));
  };

  test('is the name of the operation, told as why', () => {
    const contract = named({ [`${collection ?? ''}:list`]: 'quays' });
    const quays = contract.operations.find(({ id }) => id === 'quays');
    expect(quays?.verb).toBe('list');
    expect(quays?.reasons.map(({ rule }) => rule)).toContain('operation.own-name');
  });

  test('is kept free for it, whatever would be called so by its verb', () => {
    const contract = named({ [`${item ?? ''}:remove`]: 'listBerths' });
    const verbs = new Map(contract.operations.map(({ id, verb }) => [id, verb]));
    expect(verbs.get('listBerths')).toBe('remove');
    expect(new Set(idsOf(contract)).size).toBe(contract.operations.length);
  });

  test('is given once', () => {
    const contract = named({ [`${collection ?? ''}:list`]: 'same', [`${item ?? ''}:read`]: 'same' });
    expect(contract.operations.filter(({ id }) => id === 'same').map(({ verb }) => verb)).toEqual(['list']);
    expect(contract.findings.filter(({ id }) => id === 'operation.collide')).toHaveLength(1);
  });
});

test.each([
  ['close', 'set open = false', 'closeBerth'],
  ['closeBerth', 'set open = false', 'closeBerth'],
  ['closeBerthForGood', 'set open = false', 'closeBerthForGood'],
  ['open', 'first 5 where open = true', 'listOpenBerths'],
  ['openBerths', 'first 5 where open = true', 'listOpenBerths'],
])('a custom operation called %s is named %3$s: a noun is said once', (name, text, id) => {
  const entity = indexModel(model).entities.get('Berth')?.id ?? '';
  const read = readEffect(model, 'Berth', text);
  if (!read.ok) throw new Error(read.message);
  const choices = {
    ...NO_CHOICES,
    arrangements: [
      { ...plainArrangement('main'), customOperations: [{ id: 'c1', name, entity, effect: read.effect }] },
    ],
  };
  expect(idsOf(derive(model, arrangementOf('main', choices)))).toContain(id);
});
