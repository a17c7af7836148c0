import { withImplicitIds, type Model } from '../model/index.js';
import { SETTING_DEFAULTS, type Arrangement, type SettingValues } from './settings.js';

/** What was decided about a design besides its text. */
export interface Choices {
  /** For the whole design. */
  readonly settings: SettingValues;
  /** For single arrangements, by their name. */
  readonly arrangements: Readonly<Record<string, SettingValues>>;
  /** Ids of assumptions that somebody agreed to. */
  readonly answered: readonly string[];
}

export const NO_CHOICES: Choices = { settings: {}, arrangements: {}, answered: [] };

/** The model as the settings of its design complete it. */
export const completeModel = (model: Model, { settings }: Choices): Model =>
  withImplicitIds(model, settings.implicitId ?? SETTING_DEFAULTS.implicitId);

export const arrangementOf = (name: string, { settings, arrangements }: Choices): Arrangement => ({
  name,
  design: settings,
  own: Object.hasOwn(arrangements, name) ? (arrangements[name] ?? {}) : {},
});
