import { expect, test } from '@jest/globals';
import {
  DOCUMENTED_KINDS,
  saidOfKind,
  type Arrangement,
  type DocumentationChoices,
} from '@isomeros/core/arrangement';
import { documentable, NOTE_KINDS, type Contract } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import type { Declaration, Model } from '@isomeros/core/model';
import fc from 'fast-check';
import { anyArrangement } from '../support/arrangements.js';
import { rounds } from '../support/rounds.js';

/** Everything that is said, as `kind subject`. */
const said = (documentation: DocumentationChoices): readonly string[] =>
  DOCUMENTED_KINDS.flatMap((kind) =>
    Object.keys(saidOfKind(documentation, kind)).map((subject) => `${kind} ${subject}`),
  );

/** What a contract shows of it, and what its findings say has lost what it was about. */
function found(
  contract: Contract,
  model: Model,
): { readonly shown: Set<string>; readonly lost: Set<string> } {
  const operations = [...documentable('operation', contract, model)].filter(
    ([, id]) => contract.operations.find((one) => one.id === id)?.documentation !== null,
  );
  return {
    shown: new Set([
      'api api',
      ...contract.documentation.servers.map(({ name }) => `server ${name}`),
      ...contract.documentation.tags.map(({ id }) => `tag ${id}`),
      ...operations.map(([subject]) => `operation ${subject}`),
      ...NOTE_KINDS.flatMap((kind) =>
        Object.keys(contract.documentation.notes[kind]).map((subject) => `${kind} ${subject}`),
      ),
    ]),
    lost: new Set(
      contract.findings.flatMap(({ id, about, cause }) =>
        id === 'documentation.lost' && cause?.kind === 'documentation' ? [`${cause.of} ${about}`] : [],
      ),
    ),
  };
}

/** The same model, everything in it called otherwise; identities stay. */
const renamed = (model: Model, mark: string): Model => {
  const called = (name: string): string => name + mark;
  const declarations = model.declarations.map((one): Declaration => {
    switch (one.kind) {
      case 'entity':
      case 'value':
        return { ...one, name: called(one.name) };
      case 'owns':
      case 'refers':
      case 'pairs':
        return { ...one, from: called(one.from), to: called(one.to) };
    }
  });
  const carried = new Set(model.declarations.flatMap((one) => (one.kind === 'value' ? [one.name] : [])));
  return carried.size > 0 ? model : { ...model, declarations };
};

type Step = 'rename' | 'move' | 'settings';

const applied = (
  step: Step,
  at: number,
  state: { readonly model: Model; readonly arrangement: Arrangement },
  other: Arrangement,
): typeof state => {
  switch (step) {
    case 'rename':
      return { ...state, model: renamed(state.model, String.fromCharCode(65 + (at % 26))) };
    case 'move':
      return { ...state, arrangement: { ...state.arrangement, placements: {} } };
    case 'settings':
      return { ...state, arrangement: { ...state.arrangement, own: other.own } };
  }
};

test('what is said outlives renames, moves and settings, or is told to have lost what it was about', () => {
  fc.assert(
    fc.property(
      anyArrangement,
      anyArrangement,
      fc.array(fc.constantFrom<Step>('rename', 'move', 'settings'), { minLength: 1, maxLength: 5 }),
      (drawn, other, steps) => {
        const first = JSON.stringify(derive(drawn.model, drawn.arrangement));
        const states = steps.reduce(
          (before, step, at) => [...before, applied(step, at, before.at(-1) ?? drawn, other.arrangement)],
          [{ model: drawn.model, arrangement: drawn.arrangement }],
        );
        for (const { model, arrangement } of states) {
          const { shown, lost } = found(derive(model, arrangement), model);
          for (const one of said(arrangement.documentation)) {
            const isWaiting = one.startsWith('server ') || one.startsWith('tag ');
            expect([one, shown.has(one) || lost.has(one) || isWaiting]).toEqual([one, true]);
            expect([one, shown.has(one) && lost.has(one)]).toEqual([one, false]);
          }
        }
        // Undo brings back the choices and the text; they imply what they did.
        expect(JSON.stringify(derive(drawn.model, drawn.arrangement))).toBe(first);
      },
    ),
    rounds(15),
  );
});

test('a rename alone loses nothing', () => {
  fc.assert(
    fc.property(anyArrangement, ({ model, arrangement }) => {
      const before = found(derive(model, arrangement), model);
      const after = found(derive(renamed(model, 'X'), arrangement), renamed(model, 'X'));
      expect(after).toEqual(before);
    }),
    rounds(15),
  );
});
