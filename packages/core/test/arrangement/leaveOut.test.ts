import { describe, expect, test } from '@jest/globals';
import {
  leaving,
  NO_CHOICES,
  withLeftOut,
  type Choices,
  type SettingScope,
} from '@isomeros/core/arrangement';

const leftOut = ({ arrangements }: Choices): unknown => [
  arrangements[0]?.settings.leftOut,
  Object.fromEntries(
    Object.entries(arrangements[0]?.resources ?? {}).map(([id, { leftOut: own }]) => [id, own]),
  ),
];
const left = (
  choices: Choices,
  scope: SettingScope,
  operation: 'read' | 'remove' | 'replace',
  isLeftOut = true,
): Choices => withLeftOut(choices, 'main', scope, leaving(operation, isLeftOut));

describe('leaving operations out', () => {
  test('of some resources adds to what each inherits', () => {
    const everywhere = left(NO_CHOICES, 'everywhere', 'remove');
    const some = left(everywhere, ['a', 'b'], 'replace');
    expect(leftOut(some)).toEqual([['remove'], { a: ['replace', 'remove'], b: ['replace', 'remove'] }]);
  });

  test('and offering them again leaves nothing chosen where it is as inherited', () => {
    const some = left(left(NO_CHOICES, ['a'], 'remove'), ['a'], 'remove', false);
    expect(leftOut(some)).toEqual([undefined, {}]);
  });

  test('offers what is left out above, for one resource', () => {
    const one = left(left(NO_CHOICES, 'everywhere', 'remove'), ['a'], 'remove', false);
    expect(leftOut(one)).toEqual([['remove'], { a: [] }]);
  });

  test('everywhere holds for all, whatever was chosen for some', () => {
    const all = left(left(NO_CHOICES, ['a', 'b'], 'read'), 'everywhere', 'remove');
    expect(leftOut(all)).toEqual([['remove'], {}]);
  });
});
