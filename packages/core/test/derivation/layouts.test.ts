import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { arrangementOf, NO_CHOICES, plainArrangement } from '@isomeros/core/arrangement';
import { indexContract, type Contract, type Link, type Member } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { expectGoldenText } from '../support/golden.js';
import { modelOf } from '../support/models.js';
import { rulesDocument } from '../support/rulesDocument.js';
import { LAYOUTS } from './layouts/index.js';
import type { Layout } from './layouts/layout.js';

function contractOf({
  model,
  placements = {},
  settings = {},
  resources = {},
  words = {},
  customOperations = [],
}: Layout): Contract {
  const arrangement = {
    ...plainArrangement('main'),
    placements,
    settings,
    resources,
    words,
    customOperations,
  };
  return derive(modelOf(model), arrangementOf('main', { ...NO_CHOICES, arrangements: [arrangement] }));
}

function paths({ resources, operations }: Contract): string[] {
  return resources
    .filter(({ kind }) => kind !== 'entry')
    .map(({ id, path }) => {
      const verbs = operations.filter(({ resource }) => resource === id).map(({ verb }) => verb);
      return `${path}: ${verbs.join(' ')}`;
    });
}

function targetOf(contract: Contract, { target }: Link): string {
  const { resources } = indexContract(contract);
  if (!('resource' in target)) return target.kind;
  const path = resources.get(target.resource)?.path ?? '';
  const parameter = target.kind === 'filtered' ? `?${target.parameter}` : '';
  return (path === '' ? '/' : path) + parameter;
}

const links = (contract: Contract): string[] =>
  contract.resources.flatMap((resource) =>
    resource.links.map(
      (link) =>
        `${resource.path === '' ? '/' : resource.path}: ${link.relation} → ${targetOf(contract, link)}`,
    ),
  );

const sign = ({ mode, required }: Member): string => (mode === 'moved' ? '~' : required ? '!' : '');

const members = (contract: Contract): string[] =>
  contract.shapes.map(({ name, members: own }) => {
    const shown = own.filter(({ source }) => source.kind !== 'links');
    return `${name}:${shown.map((member) => ` ${member.name}${sign(member)}`).join('')}`;
  });

const parameters = ({ resources, operations }: Contract): string[] =>
  operations
    .filter(({ verb }) => verb === 'list' || verb === 'read')
    .map(({ resource, query }) => {
      const path = resources.find(({ id }) => id === resource)?.path ?? '';
      const texts = query.map((one) =>
        one.role === 'filter' ? `${one.name}[${one.operators.join(' ')}]` : one.name,
      );
      return [`${path}:`, ...texts].join(' ');
    });

const reasons = (contract: Contract): string[] =>
  contract.resources.flatMap(({ path, reasons: why }) => why.map(({ rule }) => `${path}: ${rule}`));

describe.each(LAYOUTS)('$title', ({ layouts }) => {
  test.each(layouts)('$name', (layout) => {
    const contract = contractOf(layout);
    expect(paths(contract)).toEqual(layout.paths);
    expect(links(contract)).toEqual(expect.arrayContaining([...(layout.links ?? [])]));
    expect(members(contract)).toEqual(expect.arrayContaining([...(layout.members ?? [])]));
    expect(parameters(contract)).toEqual(expect.arrayContaining([...(layout.parameters ?? [])]));
    expect(reasons(contract)).toEqual(expect.arrayContaining([...(layout.reasons ?? [])]));
    const found = contract.findings.filter(({ id }) => id !== 'model.leftover');
    expect(found.map(({ id, about }) => `${id} ${about}`)).toEqual(layout.findings ?? []);
  });
});

test('the table has at least sixty layouts, each with a name of its own', () => {
  const names = LAYOUTS.flatMap(({ layouts }) => layouts.map(({ name }) => name));
  expect(new Set(names).size).toBe(names.length);
  expect(names.length).toBeGreaterThanOrEqual(60);
});

test('they are published with the rules, as they are', () => {
  const file = join(import.meta.dirname, '../../../../docs/rules.md');
  expectGoldenText(file, rulesDocument(LAYOUTS));
});
