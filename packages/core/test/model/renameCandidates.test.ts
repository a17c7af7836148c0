import { describe, expect, test } from '@jest/globals';
import {
  declareRename,
  identitiesOf,
  NO_RENAME_CANDIDATES,
  possibleRenames,
  reconcile,
  trackRenames,
  type Identities,
  type RenameCandidates,
  type Model,
} from '@isomeros/core/model';
import { parse, print } from '@isomeros/core/notation';
import fc from 'fast-check';
import { anyModel, modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';

const BASE =
  'entity Route\n  name: text\n  state: choice(open, shut), default open\n    shut: open -> shut\n\nentity Sailing\n  departsAt: instant\n\neach Route owns many Sailing as sailings, back as route';

/** A design that is saved text after text, as the server does it. */
class Saved {
  identities: Identities;
  candidates: RenameCandidates = NO_RENAME_CANDIDATES;
  revision = 1;
  readonly models: Model[];

  constructor(private text: string) {
    this.identities = reconcile(modelOf(text), modelOf(text));
    this.models = [parse(text, this.identities).model];
  }

  get model(): Model {
    return parse(this.text, this.identities).model;
  }

  save(text: string): void {
    const before = this.model;
    this.identities = reconcile(before, parse(text, this.identities).model);
    this.text = text;
    this.revision++;
    this.candidates = trackRenames(this.candidates, before, this.model, this.revision);
    this.models.push(this.model);
  }

  declare(from: string, to: string): void {
    const removed = this.candidates.removed.find(({ address }) => address === from);
    const before = this.models[(removed?.revision ?? 0) - 2];
    if (before === undefined) throw new Error(`${from} did not go.`);
    this.identities = declareRename(before, this.model, this.identities, { from, to });
  }
}

interface Case {
  readonly name: string;
  readonly texts: readonly string[];
  readonly asked: readonly (readonly [from: string, to: string])[];
  /** Identities after the first of these was declared a rename. */
  readonly expected: Readonly<Record<string, string>>;
}

const CASES: readonly Case[] = [
  {
    name: 'an attribute that changed its name and its type in one go',
    texts: [BASE.replace('departsAt: instant', 'leavesOn: date')],
    asked: [['Sailing.departsAt', 'Sailing.leavesOn']],
    expected: { 'Sailing.leavesOn': 'Sailing.departsAt' },
  },
  {
    name: 'first the new one, then without the old one',
    texts: [
      BASE.replace('departsAt: instant', 'departsAt: instant\n  leavesOn: date'),
      BASE.replace('departsAt: instant', 'leavesOn: date'),
    ],
    asked: [['Sailing.departsAt', 'Sailing.leavesOn']],
    expected: { 'Sailing.leavesOn': 'Sailing.departsAt' },
  },
  {
    name: 'an entity with its attributes and its relationships',
    texts: [
      BASE.replaceAll('Sailing', 'Crossing').replace(
        'departsAt: instant',
        'departsAt: instant\n  size: integer',
      ),
    ],
    asked: [['Sailing', 'Crossing']],
    expected: {
      Crossing: 'Sailing',
      'Crossing.departsAt': 'Sailing.departsAt',
      'Route>Crossing:sailings': 'Route>Sailing:sailings',
    },
  },
  {
    name: 'a transition that leads elsewhere too',
    texts: [BASE.replace('shut: open -> shut', 'reopen: shut -> open')],
    asked: [['Route.state/shut', 'Route.state/reopen']],
    expected: { 'Route.state/reopen': 'Route.state/shut' },
  },
  {
    name: 'nothing is asked where the same shape stands in the same place',
    texts: [BASE.replace('departsAt', 'leavesAt')],
    asked: [],
    expected: { 'Sailing.leavesAt': 'Sailing.departsAt' },
  },
  {
    name: 'nothing is asked of what only came, or only went',
    texts: [BASE.replace('  name: text\n', ''), `${BASE}\n\nentity Notice\n  text: text`],
    asked: [],
    expected: { Notice: 'Notice' },
  },
  {
    name: 'what comes back under its name is not gone',
    texts: [BASE.replace('  departsAt: instant', '  leavesOn: date'), BASE],
    asked: [],
    expected: { 'Sailing.departsAt': 'Sailing.departsAt' },
  },
];

describe('what went and what came', () => {
  test.each(CASES)('$name', ({ texts, asked, expected }) => {
    const saved = new Saved(BASE);
    for (const text of texts) saved.save(text);
    expect(possibleRenames(saved.candidates).map(({ from, to }) => [from, to])).toEqual(asked);
    const [first] = asked;
    if (first !== undefined) saved.declare(...first);
    for (const [address, identity] of Object.entries(expected))
      expect([address, saved.identities[address]]).toEqual([address, identity]);
  });

  test('a declared rename never gives two elements one identity, and loses none that stayed', () => {
    fc.assert(
      fc.property(anyModel, anyModel, fc.nat(), (first, second, pick) => {
        const saved = new Saved(print(first));
        saved.save(print(second));
        const asked = possibleRenames(saved.candidates);
        const chosen = asked[pick % Math.max(1, asked.length)];
        if (chosen === undefined) return;
        const before = { ...saved.identities };
        saved.declare(chosen.from, chosen.to);
        const ids = Object.values(saved.identities);
        expect(new Set(ids).size).toBe(ids.length);
        expect(Object.keys(saved.identities)).toEqual(Object.keys(before));
        const added = new Set(saved.candidates.added.map(({ address }) => address));
        for (const [address, id] of Object.entries(before))
          if (!added.has(address)) expect(saved.identities[address]).toBe(id);
      }),
      rounds(80),
    );
  });
});

describe('identities across edits', () => {
  test('whatever is edited in a row, what keeps its place keeps its identity, and nothing is ever shared', () => {
    const edits = fc.array(fc.tuple(fc.nat(), fc.constantFrom('drop', 'rename', 'retype', 'swap')), {
      maxLength: 8,
    });
    fc.assert(
      fc.property(anyModel, edits, (model, steps) => {
        const saved = new Saved(print(model));
        for (const [pick, what] of steps) {
          const before = identitiesOf(saved.model);
          const text = edited(saved.model, pick, what);
          if (text === null) continue;
          saved.save(text);
          const after = identitiesOf(saved.model);
          const ids = [...after.values()];
          expect(new Set(ids).size).toBe(ids.length);
          for (const [address, id] of after)
            if (before.has(address)) expect([address, id]).toEqual([address, before.get(address)]);
        }
      }),
      rounds(80),
    );
  });
});

/** The text after one change of one attribute; `null` where the change leaves no sound text. */
function edited(model: Model, pick: number, what: string): string | null {
  const blocks = model.declarations.filter((item) => item.kind === 'entity' || item.kind === 'value');
  const block = blocks[pick % Math.max(1, blocks.length)];
  const attribute = block?.attributes[pick % Math.max(1, block.attributes.length)];
  if (block === undefined || attribute === undefined) return null;
  const attributes = block.attributes.flatMap((item) => {
    if (item !== attribute) return [item];
    if (what === 'drop') return [];
    if (what === 'rename') return [{ ...item, name: `renamed${pick % 7}` }];
    return [{ ...item, type: { kind: 'json' as const }, defaultValue: null, example: null, lifeCycle: null }];
  });
  const next = { ...block, attributes: what === 'swap' ? [...block.attributes].reverse() : attributes };
  const text = print({
    ...model,
    declarations: model.declarations.map((item) => (item === block ? next : item)),
  });
  return parse(text).diagnostics.length === 0 ? text : null;
}
