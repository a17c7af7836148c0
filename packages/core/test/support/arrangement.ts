import {
  arrangementOf,
  NO_CHOICES,
  plainArrangement,
  type Arrangement,
  type SettingsById,
  type SettingValues,
} from '@isomeros/core/arrangement';

/** The arrangement a new design has: nobody chose anything. */
export const MAIN = arrangementOf('main', NO_CHOICES);

/** An arrangement about which only settings were chosen: its own, and those of single resources or operations. */
export const arranged = (
  settings: SettingValues,
  resources: SettingsById = {},
  operations: SettingsById = {},
): Arrangement =>
  arrangementOf('main', {
    ...NO_CHOICES,
    arrangements: [{ ...plainArrangement('main'), settings, resources, operations }],
  });
