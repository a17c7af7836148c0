import type { ChoosableSetting, Choices, SettingValues } from '@isomeros/core/arrangement';

/** A level at which a setting can be chosen. */
export type ChoiceLevel = 'design' | 'arrangement';

/** The choices with a setting chosen at a level. */
export function withSetting(
  choices: Choices,
  level: ChoiceLevel,
  arrangement: string,
  name: ChoosableSetting,
  value: string | number,
): Choices {
  return changed(choices, level, arrangement, (values) => ({ ...values, [name]: value }));
}

/** The choices with a setting no longer chosen at a level: it inherits from above. */
export function withoutSetting(
  choices: Choices,
  level: ChoiceLevel,
  arrangement: string,
  name: ChoosableSetting,
): Choices {
  return changed(choices, level, arrangement, (values) =>
    Object.fromEntries(Object.entries(values).filter(([known]) => known !== name)),
  );
}

function changed(
  choices: Choices,
  level: ChoiceLevel,
  arrangement: string,
  change: (values: SettingValues) => SettingValues,
): Choices {
  if (level === 'design') return { ...choices, settings: change(choices.settings) };
  const own = change(choices.arrangements[arrangement] ?? {});
  return { ...choices, arrangements: { ...choices.arrangements, [arrangement]: own } };
}
