import { describe, expect, test } from '@jest/globals';
import { indexContract, RULES, type Contract, type Member } from '@isomeros/core/contract';
import { derive, deriveOutline } from '@isomeros/core/derivation';
import { routerOf } from '@isomeros/core/engine';
import { identitiesOf } from '@isomeros/core/model';
import fc from 'fast-check';
import { contractDigest } from '../support/contractDigest.js';
import { elements } from '../support/elements.js';
import { expectGolden } from '../support/golden.js';
import { anyModel, modelOf } from '../support/models.js';
import { kestrelText } from '../support/samples.js';
import { MAIN } from '../support/arrangement.js';
import { rounds } from '../support/rounds.js';

const contractOf = (text: string): Contract => derive(modelOf(text), MAIN);

describe('the contract', () => {
  test('of the sample is the one that was read and found right', () => {
    expectGolden('kestrel-contract.txt', contractDigest(contractOf(kestrelText)));
  });

  test('is the same, byte for byte, from the same input', () => {
    fc.assert(
      fc.property(anyModel, (model) => {
        const again = structuredClone(model);
        expect(JSON.stringify(derive(model, MAIN))).toBe(JSON.stringify(derive(again, MAIN)));
      }),
      rounds(30),
    );
  });

  test('has a reason for every element, each of a known rule, each citing what is there', () => {
    fc.assert(
      fc.property(anyModel, (model) => {
        const known = new Set(identitiesOf(model).values());
        const wrong: string[] = [];
        for (const [where, reasons] of elements(derive(model, MAIN))) {
          if (reasons.length === 0) wrong.push(`${where} has no reason`);
          for (const { rule, because } of reasons) {
            if (!Object.hasOwn(RULES, rule)) wrong.push(`${where} has the unknown rule ${rule}`);
            for (const source of because) {
              if (source.kind === 'statement' && !known.has(source.id))
                wrong.push(`${where} cites ${source.id}`);
            }
          }
        }
        expect(wrong).toEqual([]);
      }),
      rounds(40),
    );
  });

  test('names every operation once, and no two operations match the same request', () => {
    fc.assert(
      fc.property(anyModel, (model) => {
        const contract = derive(model, MAIN);
        const names = contract.operations.map(({ id }) => id);
        expect(new Set(names).size).toBe(names.length);
        const requests = contract.operations.map(({ method, resource }) => {
          const found = indexContract(contract).resources.get(resource);
          return `${method} ${found?.segments.map((segment) => (segment.kind === 'id' ? '{}' : segment.text)).join('/') ?? ''}`;
        });
        expect(new Set(requests).size).toBe(requests.length);
      }),
      rounds(60),
    );
  });

  test('leads every path to its resource through the router', () => {
    fc.assert(
      fc.property(anyModel, (model) => {
        const contract = derive(model, MAIN);
        const router = routerOf(contract);
        const led = contract.resources.map(({ segments }) => {
          const texts = segments.map((segment) => (segment.kind === 'id' ? 'some-id' : segment.text));
          return router.match(['api', 'v1', ...texts])?.resource.id;
        });
        expect(led).toEqual(contract.resources.map(({ id }) => id));
      }),
      rounds(30),
    );
  });

  test('never returns, filters on or sorts by what is write-only', () => {
    fc.assert(
      fc.property(anyModel, (model) => {
        const secrets = new Set(
          model.declarations.flatMap((declaration) =>
            declaration.kind === 'entity'
              ? declaration.attributes.filter(({ writeOnly }) => writeOnly).map(({ id }) => id)
              : [],
          ),
        );
        const contract = derive(model, MAIN);
        const isSecret = (field: { kind: string; attribute?: string }): boolean =>
          field.kind === 'attribute' && secrets.has(field.attribute ?? '');
        for (const shape of contract.shapes.filter(({ purpose }) => purpose === 'item')) {
          expect(shape.members.filter(({ source }) => isSecret(source))).toEqual([]);
        }
        for (const parameter of contract.operations.flatMap(({ query }) => query)) {
          if (parameter.role === 'filter') expect(isSecret(parameter.field)).toBe(false);
          if (parameter.role === 'sort')
            expect(parameter.keys.filter(({ field }) => isSecret(field))).toEqual([]);
        }
      }),
      rounds(40),
    );
  });
});

interface Exposure {
  readonly flags: string;
  /** As `returned create replace change`: r returned, ! required, + accepted, = must equal, ~ ignored, - not. */
  readonly expected: string;
}

/** What each flag does to the shapes; the table is the documentation of the rule. */
const EXPOSURES: readonly Exposure[] = [
  { flags: 'text', expected: 'r + + +' },
  { flags: 'text, required', expected: 'r ! ! +' },
  { flags: 'choice(a, b), required, default a', expected: 'r + + +' },
  { flags: 'choice(a, b), default a\n    go: a -> b', expected: 'r - = =' },
  { flags: 'text, fixed', expected: 'r + = =' },
  { flags: 'text, required, fixed', expected: 'r ! = =' },
  { flags: 'text, read-only', expected: 'r - = =' },
  { flags: 'text, write-only', expected: '- + + +' },
  { flags: 'text, required, write-only', expected: '- ! + +' },
  { flags: 'integer, generated', expected: 'r - = =' },
  { flags: 'instant, touched', expected: 'r - ~ ~' },
  { flags: 'text, key', expected: 'r ! = =' },
  { flags: 'uuid, key, generated', expected: 'r - = =' },
];

const MODE = { accepted: '+', moved: '>', 'must-equal': '=', ignored: '~', returned: 'r' } as const;

describe('what goes in and what comes out', () => {
  test.each(EXPOSURES)('$flags', ({ flags, expected }) => {
    const contract = contractOf(`entity Thing\n  it: ${flags}`);
    const member = (shape: string): Member | undefined =>
      indexContract(contract)
        .shapes.get(shape)
        ?.members.find(({ name }) => name === 'it');
    const sign = (shape: string): string => {
      const found = member(shape);
      if (found === undefined) return '-';
      return found.required && found.mode === 'accepted' ? '!' : MODE[found.mode];
    };
    expect(['Thing', 'Thing.create', 'Thing.replace', 'Thing.change'].map(sign).join(' ')).toBe(expected);
  });

  test('a reference is a member named by its role and the key of its target', () => {
    const contract = contractOf(
      'entity Harbour\n  code: text, key\nentity Route\neach Route refers to one Harbour as origin',
    );
    const names = indexContract(contract)
      .shapes.get('Route.create')
      ?.members.map(({ name, required }) => `${name} ${required}`);
    expect(names).toEqual(['originCode true']);
  });

  test('an owner is returned and never accepted', () => {
    const contract = contractOf(
      'entity Route\nentity Sailing\neach Route owns many Sailing as sailings, back as line',
    );
    const { shapes } = indexContract(contract);
    expect(shapes.get('Sailing')?.members.map(({ name }) => name)).toEqual(['id', 'lineId', 'links']);
    expect(shapes.get('Sailing.create')?.members).toEqual([]);
  });

  test('a required slot is a member of the body that creates its owner', () => {
    const contract = contractOf(
      'entity Vessel\nentity Certificate\n  number: text, required\neach Vessel owns one Certificate as certificate',
    );
    const create = indexContract(contract).shapes.get('Vessel.create');
    expect(create?.members.map(({ name, required }) => `${name} ${required}`)).toEqual(['certificate true']);
  });

  test('a member that would be there twice is a finding', () => {
    const contract = contractOf(
      'entity Harbour\nentity Route\n  originId: text\neach Route refers to one Harbour as origin',
    );
    expect(contract.findings.map(({ id }) => id)).toEqual(['member.collide']);
  });

  test('a filter that would have the name of a parameter of the list is a finding', () => {
    const contract = contractOf('entity Book\n  page: integer');
    expect(contract.findings.map(({ id }) => id)).toEqual(['parameter.reserved']);
  });

  test('nothing can refer to a key that is unique under its owner only', () => {
    const contract = contractOf(
      'entity Vessel\nentity Cabin\n  label: text, key within vessel\nentity Booking\neach Vessel owns many Cabin as cabins, back as vessel\neach Booking refers to optional Cabin as cabin',
    );
    expect(contract.findings.map(({ id }) => id)).toEqual(['key.scoped-reference']);
  });

  test('its outline is the same tree with the same operations, of any model', () => {
    fc.assert(
      fc.property(anyModel, (model) => {
        const { title, root, resources, operations } = derive(model, MAIN);
        const outline = deriveOutline(model, MAIN);
        expect([outline.title, outline.root]).toEqual([title, root]);
        expect(outline.resources).toEqual(
          resources.map(
            ({ segments: _segments, links: _links, leftOutLinks: _out, ...outlined }) => outlined,
          ),
        );
        expect(outline.operations).toEqual(
          operations.map(({ id, verb, method, effect, resource }) => ({
            id,
            verb,
            method,
            effect,
            resource,
          })),
        );
      }),
      rounds(30),
    );
  });
});
