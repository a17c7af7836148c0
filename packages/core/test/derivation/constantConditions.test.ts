import { describe, expect, test } from '@jest/globals';
import { derive } from '@isomeros/core/derivation';
import { MAIN } from '../support/arrangement.js';
import { modelOf } from '../support/models.js';

const textOf = (condition: string): string => `entity Task
  priority: integer(1..5), required
  weight: decimal(0..2.5)
  name: text(..10)
  state: choice(open, done), default open
    close: open -> done when ${condition}
`;

describe('a condition', () => {
  test.each<readonly [string, string | null]>([
    ['priority > 0', 'always holds'],
    ['priority >= 1', 'always holds'],
    ['priority <= 5', 'always holds'],
    ['priority != 9', 'always holds'],
    ['priority > 5', 'never holds'],
    ['priority = 9', 'never holds'],
    ['priority = 2.5', 'never holds'],
    ['weight < 0', 'never holds'],
    ['weight <= 2.5', 'always holds'],
    ['priority > 1', null],
    ['priority != 5', null],
    ['weight = 2.25', null],
    ['name = "longer than its limit"', null],
  ])('%s is read, and a finding says where it decides nothing', (condition, says) => {
    const { findings } = derive(modelOf(textOf(condition)), MAIN);
    const found = findings.filter(({ id }) => id === 'condition.constant').map(({ message }) => message);
    expect(found).toEqual(
      says === null ? [] : [expect.stringMatching(`^${condition}, in close of Task, ${says}`)],
    );
  });
});
