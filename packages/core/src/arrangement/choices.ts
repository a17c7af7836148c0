import { withImplicitIds, type Model } from '../model/index.js';
import { SETTING_DEFAULTS, type Arrangement, type SettingValues } from './settings.js';

/** What was decided about a design besides its text. */
export interface Choices {
  readonly settings: SettingValues;
  /** Ids of assumptions that somebody agreed to. */
  readonly answered: readonly string[];
}

export const NO_CHOICES: Choices = { settings: {}, answered: [] };

/** The model as the settings of its design complete it. */
export const completeModel = (model: Model, { settings }: Choices): Model =>
  withImplicitIds(model, settings.implicitId ?? SETTING_DEFAULTS.implicitId);

export const arrangementOf = (name: string, { settings }: Choices): Arrangement => ({
  name,
  design: settings,
});
