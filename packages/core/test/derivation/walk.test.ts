import { describe, expect, test } from '@jest/globals';
import {
  indexContract,
  RULES,
  type Contract,
  type LinkTarget,
  type Reasons,
  type Resource,
  type Source,
  type Field,
  type QueryParameter,
} from '@isomeros/core/contract';
import { derive, deriveOutline } from '@isomeros/core/derivation';
import { identitiesOf } from '@isomeros/core/model';
import fc from 'fast-check';
import { anyArrangement } from '../support/arrangements.js';
import { elements } from '../support/elements.js';
import { rounds } from '../support/rounds.js';

/** Walks any model under any arrangement. */
function walk(check: (contract: Contract) => void): void {
  fc.assert(
    fc.property(anyArrangement, ({ model, arrangement }) => {
      check(derive(model, arrangement));
    }),
    rounds(40),
  );
}

const shapeOf = ({ segments }: Resource): string =>
  segments.map((segment) => (segment.kind === 'id' ? '{}' : segment.text)).join('/');

const targetOf = (target: LinkTarget): string | undefined =>
  'resource' in target ? target.resource : undefined;

/** Where links lead from the entry, a list leading to the address of what it lists. */
function reachable(contract: Contract): ReadonlySet<string> {
  const { resources, canonical, childrenOf } = indexContract(contract);
  const seen = new Set<string>(['entry']);
  const waiting = ['entry'];
  const visit = (id: string | undefined): void => {
    if (id === undefined || seen.has(id)) return;
    seen.add(id);
    waiting.push(id);
  };
  for (let id = waiting.pop(); id !== undefined; id = waiting.pop()) {
    const resource = resources.get(id);
    // What somebody left out is their decision.
    for (const { target } of [...(resource?.links ?? []), ...(resource?.leftOutLinks ?? [])])
      visit(targetOf(target));
    if (resource?.entity == null) continue;
    visit(canonical.get(resource.entity)?.id);
    if (resource.kind === 'pairing' && resource.canonical)
      (childrenOf.get(id) ?? []).filter(({ kind }) => kind === 'pair').forEach((pair) => visit(pair.id));
  }
  return seen;
}

describe('any model under any arrangement', () => {
  test('has one resource a path and one name an operation', () => {
    walk(({ resources, operations }) => {
      const shapes = resources.map(shapeOf);
      expect(new Set(shapes).size).toBe(shapes.length);
      expect(new Set(resources.map(({ id }) => id)).size).toBe(resources.length);
      expect(new Set(operations.map(({ id }) => id)).size).toBe(operations.length);
    });
  });

  test('has one address for the records of each entity', () => {
    walk(({ resources }) => {
      const homes = resources.filter(
        ({ kind, canonical }) => canonical && (kind === 'item' || kind === 'singleton'),
      );
      expect(new Set(homes.map(({ entity }) => entity)).size).toBe(homes.length);
      const shown = new Set(resources.flatMap(({ entity }) => entity ?? []));
      const housed = new Set(homes.map(({ entity }) => entity));
      expect([...shown].filter((entity) => !housed.has(entity))).toEqual([]);
    });
  });

  test('leads from the entry to every resource', () => {
    walk((contract) => {
      const collided = contract.findings.some(({ id }) => id === 'path.collide' || id === 'member.collide');
      // What is left out takes the links to it along.
      const isWhole = contract.resources.every(({ leftOut }) => leftOut.length === 0);
      if (collided || !isWhole) return;
      const seen = reachable(contract);
      expect(contract.resources.filter(({ id }) => !seen.has(id)).map(({ path }) => path)).toEqual([]);
    });
  });

  test('has a reason of a known rule for every element, citing what is there', () => {
    fc.assert(
      fc.property(anyArrangement, ({ model, arrangement }) => {
        const known = new Set(identitiesOf(model).values());
        const wrong = [...elements(derive(model, arrangement))].flatMap(([where, reasons]) =>
          problemsOf(where, reasons, known),
        );
        expect(wrong).toEqual([]);
      }),
      rounds(50),
    );
  });

  test('names only shapes that are there, and shows no secret', () => {
    fc.assert(
      fc.property(anyArrangement, ({ model, arrangement }) => {
        const contract = derive(model, arrangement);
        const { shapes } = indexContract(contract);
        const named = contract.operations.flatMap(({ accepts, returns }) => [accepts, returns]);
        expect(named.filter((name) => name !== null && !shapes.has(name))).toEqual([]);
        const secrets = new Set(
          model.declarations.flatMap((declaration) =>
            declaration.kind === 'entity'
              ? declaration.attributes.filter(({ writeOnly }) => writeOnly).map(({ id }) => id)
              : [],
          ),
        );
        const leaks = contract.shapes
          .filter(({ purpose }) => purpose === 'item' || purpose === 'member')
          .flatMap(({ members }) => members)
          .filter(({ source }) => source.kind === 'attribute' && secrets.has(source.attribute));
        expect(leaks).toEqual([]);
        const parameters = contract.operations.flatMap(({ query }) => query);
        expect(parameters.flatMap(fieldsOf).filter((field) => isSecret(field, secrets))).toEqual([]);
        const fixed = contract.operations.flatMap(({ custom, order }) => [
          ...(custom?.kind === 'query' ? custom.filters : []).map(({ field }) => field),
          ...order.map(({ field }) => field),
        ]);
        expect(fixed.filter((field) => isSecret(field, secrets))).toEqual([]);
      }),
      rounds(50),
    );
  });

  test('is outlined as it is derived', () => {
    fc.assert(
      fc.property(anyArrangement, ({ model, arrangement }) => {
        const { resources, operations } = derive(model, arrangement);
        const outline = deriveOutline(model, arrangement);
        expect(outline.resources.map(({ id, path }) => [id, path])).toEqual(
          resources.map(({ id, path }) => [id, path]),
        );
        expect(outline.operations.map(({ id }) => id)).toEqual(operations.map(({ id }) => id));
      }),
      rounds(30),
    );
  });
});

/** What a parameter lets a client find out about. */
function fieldsOf(parameter: QueryParameter): readonly Field[] {
  switch (parameter.role) {
    case 'filter':
      return [parameter.field];
    case 'sort':
      return parameter.keys.map(({ field }) => field);
    case 'search':
      return parameter.fields;
    case 'input':
    case 'page':
    case 'offset':
    case 'cursor':
    case 'size':
    case 'order':
    case 'fields':
    case 'expand':
      return [];
  }
}

const isSecret = (field: Field, secrets: ReadonlySet<string>): boolean =>
  field.kind === 'through'
    ? isSecret(field.of, secrets)
    : field.kind === 'attribute' && secrets.has(field.attribute);

function citedBy(source: Source): string | null {
  switch (source.kind) {
    case 'statement':
      return source.id;
    case 'setting':
    case 'custom':
    case 'link':
    case 'own-link':
    case 'documentation':
    case 'release':
      return null;
    case 'exposure':
      return source.of;
    case 'placement':
    case 'word':
      return source.subject;
  }
}

function problemsOf(where: string, reasons: Reasons, known: ReadonlySet<string>): string[] {
  if (reasons.length === 0) return [`${where} has no reason`];
  return reasons.flatMap(({ rule, because }) => {
    if (!Object.hasOwn(RULES, rule)) return [`${where} has the unknown rule ${rule}`];
    return because.flatMap((source) => {
      const id = citedBy(source);
      const cited = id?.replace(/\/back$/, '') ?? null;
      return cited === null || known.has(cited) ? [] : [`${where} cites ${cited}`];
    });
  });
}
