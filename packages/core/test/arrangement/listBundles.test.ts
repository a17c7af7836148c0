import { describe, expect, test } from '@jest/globals';
import {
  arrangementOf,
  LIST_BUNDLES,
  NO_CHOICES,
  setting,
  withListBundle,
  withSetting,
  type Choices,
  type SettingScope,
} from '@isomeros/core/arrangement';

const bundled = (choices: Choices, scope: SettingScope, title: string): Choices => {
  const bundle = LIST_BUNDLES.find((one) => one.title === title);
  if (bundle === undefined) throw new Error(`There is no bundle ${title}.`);
  return withListBundle(choices, 'main', scope, bundle);
};
const formAt = (choices: Choices, resource: string): unknown =>
  (['pageStyle', 'totals'] as const).map(
    (name) => setting(arrangementOf('main', choices), name, { resource }).value,
  );

describe('a bundle of list settings', () => {
  test.each(LIST_BUNDLES.map(({ title, settings }) => [title, settings] as const))(
    '%s holds where it was chosen, and nowhere else',
    (title, settings) => {
      const some = bundled(NO_CHOICES, ['a'], title);
      expect(formAt(some, 'a')).toEqual([settings.pageStyle, settings.totals]);
      expect(formAt(some, 'b')).toEqual(formAt(NO_CHOICES, 'b'));
    },
  );

  test('that is inherited is not chosen once more', () => {
    const all = bundled(NO_CHOICES, 'everywhere', 'endless, by cursor');
    expect(bundled(all, ['a'], 'endless, by cursor')).toEqual(all);
    const back = bundled(bundled(NO_CHOICES, ['a'], 'endless, by cursor'), ['a'], 'numbered');
    expect(back.arrangements[0]?.resources).toEqual({});
  });

  test('for all lists leaves what else was chosen for one of them', () => {
    const one = withSetting(
      NO_CHOICES,
      'main',
      { level: 'resource', id: 'a' },
      { name: 'pageSize', value: 7 },
    );
    const all = bundled(bundled(one, ['a'], 'small and whole'), 'everywhere', 'at most 500');
    expect(all.arrangements[0]?.resources).toEqual({ a: { pageSize: 7 } });
    expect(formAt(all, 'a')).toEqual(['ceiling', 'none']);
  });
});
