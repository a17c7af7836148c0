import { describe, expect, test } from '@jest/globals';
import {
  NO_CHOICES,
  plainArrangement,
  withEdit,
  withSetting,
  type Choices,
} from '@isomeros/core/arrangement';
import {
  decisionText,
  withAnswer,
  withoutDecision,
  type CitedDecision,
  type DecidingAnswer,
} from '@isomeros/core/contract';

const inMain = (own: object): Choices => ({
  ...NO_CHOICES,
  arrangements: [{ ...plainArrangement('main'), ...own }],
});
const level = 'arrangement';

describe('a decision that is cited', () => {
  test.each<readonly [string, CitedDecision, Choices]>([
    [
      'Members snake',
      { kind: 'setting', name: 'memberCase', value: 'snake', level },
      withSetting(NO_CHOICES, 'main', { level }, { name: 'memberCase', value: 'snake' }),
    ],
    [
      'Page size 50',
      { kind: 'setting', name: 'pageSize', value: 50, level: 'design' },
      withSetting(NO_CHOICES, 'main', { level: 'design' }, { name: 'pageSize', value: 50 }),
    ],
    [
      'Placed flat',
      { kind: 'placement', subject: 'A>B:bs', place: 'flat', level },
      inMain({ placements: { 'A>B:bs': 'flat' } }),
    ],
    [
      'Called bees',
      { kind: 'word', subject: 'A>B:bs', word: 'bees', level },
      inMain({ words: { 'A>B:bs': 'bees' } }),
    ],
    [
      'Chosen in the grid: sort',
      { kind: 'exposure', entity: 'A', of: 'A.name', aspect: 'sort', level },
      withEdit(NO_CHOICES, 'main', 'exposures', {
        entity: 'A',
        member: 'A.name',
        aspect: 'sort',
        value: 'no',
      }),
    ],
    [
      'Operation newest',
      { kind: 'custom', id: 'c1', name: 'newest', level },
      inMain({ customOperations: [{ id: 'c1', name: 'newest' }], words: { c1: 'latest' } }),
    ],
  ])('%s is said in words, and taken back without a trace', (words, decision, choices) => {
    expect(decisionText(decision).join(' ')).toBe(words);
    expect(choices).not.toEqual(NO_CHOICES);
    expect(withoutDecision(choices, 'main', decision)).toEqual(NO_CHOICES);
  });

  test('of one resource is not taken back, since it is not cited of which', () => {
    const decision: CitedDecision = { kind: 'setting', name: 'pageSize', value: 5, level: 'resource' };
    expect(withoutDecision(NO_CHOICES, 'main', decision)).toBeNull();
  });
});

test.each<readonly [DecidingAnswer, object]>([
  [{ kind: 'setting', name: 'pageSize', value: 50 }, { settings: { pageSize: 50 } }],
  [
    { kind: 'placement', of: 'owned', subject: 'A>B:bs', place: 'flat' },
    inMain({ placements: { 'A>B:bs': 'flat' } }),
  ],
  [{ kind: 'word', subject: 'A>B:bs', word: 'bees' }, inMain({ words: { 'A>B:bs': 'bees' } })],
  [{ kind: 'exposure', entity: 'A', of: 'A.name', aspect: 'sort' }, NO_CHOICES],
])('an answer decides: %j', (answer, expected) => {
  expect(withAnswer(NO_CHOICES, 'main', answer)).toMatchObject(expected);
});
