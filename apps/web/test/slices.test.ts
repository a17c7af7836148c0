import { describe, expect, test } from '@jest/globals';
import type { Design } from '@isomeros/api';
import {
  NO_CHOICES,
  plainArrangement,
  withArrangement,
  withSetting,
  type Choices,
} from '@isomeros/core/arrangement';
import type { Outline } from '@isomeros/core/contract';
import { derivationFailed, derivedArrived, derivedReducer } from '../src/design/derivedSlice.js';
import {
  choicesMade,
  designChanged,
  documentReducer,
  openDesign,
  textEdited,
  type DocumentState,
} from '../src/design/documentSlice.js';
import { saveStateOf, savingReducer } from '../src/design/savingSlice.js';
import { arrangementChosen, arrangementName, viewReducer } from '../src/design/viewSlice.js';
import type { Derived } from '../src/design/derivation/service.js';

const cased = (memberCase: string): Choices =>
  withSetting(NO_CHOICES, 'main', { level: 'arrangement' }, { name: 'memberCase', value: memberCase });

const designOf = (changes: Partial<Design>): Design =>
  ({
    id: 'd1',
    text: 'entity A',
    choices: NO_CHOICES,
    revision: 1,
    changedAt: '2026-06-14T09:12:00.000Z',
    ...changes,
  }) as Design;

const opened = (design: Design, before?: DocumentState): DocumentState =>
  documentReducer(
    documentReducer(before, openDesign.pending('1', design.id)),
    openDesign.fulfilled(design, '1', design.id),
  );

describe('the document', () => {
  test('takes what the server changed, and keeps what was written since', () => {
    const changed = designOf({ text: 'entity B', revision: 2 });
    const untouched = documentReducer(opened(designOf({})), designChanged(changed));
    expect([untouched.text, untouched.design?.revision]).toEqual(['entity B', 2]);
    const written = documentReducer(opened(designOf({})), textEdited('entity Mine'));
    const kept = documentReducer(written, designChanged(changed));
    expect([kept.text, kept.design?.revision]).toEqual(['entity Mine', 2]);
  });

  test('that is opened again keeps its steps while nothing else was decided', () => {
    const decided = documentReducer(opened(designOf({})), choicesMade(cased('snake')));
    expect(opened(designOf({ choices: cased('snake') }), decided).past).toEqual([NO_CHOICES]);
    expect(opened(designOf({ choices: cased('pascal') }), decided).past).toEqual([]);
  });

  test('of another design has nothing of the one before, and an answer that comes late changes nothing', () => {
    const first = documentReducer(opened(designOf({})), choicesMade(cased('snake')));
    const second = documentReducer(first, openDesign.pending('2', 'd2'));
    expect([second.text, second.past, second.design]).toEqual(['', [], null]);
    expect(documentReducer(second, openDesign.fulfilled(designOf({}), '1', 'd1'))).toBe(second);
  });
});

describe('the state of saving', () => {
  const state = (text: string): Parameters<typeof saveStateOf>[0] => ({
    document: { ...opened(designOf({})), text },
    saving: savingReducer(
      savingReducer(undefined, openDesign.pending('1', 'd1')),
      openDesign.fulfilled(designOf({}), '1', 'd1'),
    ),
  });

  test('follows from what is written and what the server has', () => {
    expect(saveStateOf(state('entity A'))).toEqual({ kind: 'saved', at: '2026-06-14T09:12:00.000Z' });
    expect(saveStateOf(state('entity B'))).toEqual({ kind: 'waiting' });
  });

  test('is the same object while nothing of it changes, so that nothing is shown again', () => {
    const one = state('entity B');
    const before = saveStateOf(one);
    expect(saveStateOf({ ...one, document: { ...one.document, text: 'entity C' } })).toBe(before);
  });
});

describe('what is derived', () => {
  const derivedOf = (outline: Outline | null): Derived =>
    ({ reading: { model: {}, diagnostics: [], places: {} }, outline }) as unknown as Derived;
  const outline = { resources: [{ path: '/routes' }] } as unknown as Outline;

  test('stays while a newer text has errors, and while its derivation fails', () => {
    let state = derivedReducer(undefined, derivedArrived(derivedOf(outline)));
    state = derivedReducer(state, derivedArrived(derivedOf(null)));
    state = derivedReducer(state, derivationFailed('Out of memory.'));
    expect([state.outline, state.failure]).toEqual([outline, 'Out of memory.']);
    expect(derivedReducer(state, derivedArrived(derivedOf(null))).failure).toBeNull();
  });

  test('of another design is not known yet', () => {
    const state = derivedReducer(undefined, derivedArrived(derivedOf(outline)));
    expect(derivedReducer(state, openDesign.pending('1', 'd2')).outline).toBeNull();
  });

  test('marks the paths there were first, until another arrangement is looked at', () => {
    let state = viewReducer(undefined, derivedArrived(derivedOf(outline)));
    const more = { resources: [{ path: '/routes' }, { path: '/crew' }] } as unknown as Outline;
    state = viewReducer(state, derivedArrived(derivedOf(more)));
    expect(state.knownPaths).toEqual(['/routes']);
    expect(viewReducer(state, arrangementChosen('other')).knownPaths).toBeNull();
  });
});

test('the arrangement that is looked at is the chosen one while it is there, else the first', () => {
  const both = withArrangement(NO_CHOICES, plainArrangement('other'));
  const view = viewReducer(undefined, arrangementChosen('other'));
  expect(arrangementName({ document: { choices: both }, view })).toBe('other');
  expect(arrangementName({ document: { choices: NO_CHOICES }, view })).toBe('main');
});
