import { arrangementOf, type Choices } from './choices.js';
import { withSetting } from './edits.js';
import { sameJson } from '../model/index.js';
import { setting } from './settings.js';
import type { ChoosableSetting, Settings } from './settings/table.js';

/** Where a setting is chosen in one step: everywhere in the arrangement, or at some resources. */
export type SettingScope = 'everywhere' | readonly string[];

/**
 * The choices with a setting changed in a scope; what a resource inherits is not chosen for it once more. `change`: its
 * value then, by the one it has there now.
 */
export function withSettingIn<Name extends ChoosableSetting>(
  choices: Choices,
  arrangement: string,
  scope: SettingScope,
  name: Name,
  change: (current: Settings[Name]) => Settings[Name],
): Choices {
  const current = arrangementOf(arrangement, choices);
  const inherited = setting(current, name).value;
  const choose = (changed: Choices, id: string, value: Settings[Name] | null): Choices =>
    withSetting(changed, arrangement, { level: 'resource', id }, { name, value });
  if (scope === 'everywhere')
    return Object.keys(current.resources)
      .filter((id) => current.resources[id]?.[name] !== undefined)
      .reduce<Choices>(
        (changed, id) => choose(changed, id, null),
        withSetting(choices, arrangement, { level: 'arrangement' }, { name, value: change(inherited) }),
      );
  return scope.reduce((changed, id) => {
    const value = change(setting(current, name, { resource: id }).value);
    return choose(changed, id, sameJson(value, inherited) ? null : value);
  }, choices);
}
