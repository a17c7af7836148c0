export { setting, SETTING_DEFAULTS, SETTING_TITLES } from './settings.js';
export type {
  Arrangement,
  ResolvedSetting,
  SettingLevel,
  SettingName,
  Settings,
  SettingValues,
} from './settings.js';
export { CHOOSABLE, DESIGN_ONLY, readSettings } from './check.js';
export type { ChoosableSetting, SettingDomain, SettingProblem, SettingsResult } from './check.js';
export { arrangementOf, completeModel, NO_CHOICES } from './choices.js';
export type { Choices } from './choices.js';
export { DESIGN_FILE_SCHEMA, readDesignFile, writeDesignFile } from './designFile.js';
export type { DesignFile, DesignFileProblem, DesignFileResult } from './designFile.js';
