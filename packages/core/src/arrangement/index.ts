export { setting, SETTING_DEFAULTS, SETTING_TITLES } from './settings.js';
export type { Arrangement, ResolvedSetting, SettingLevel, SettingName, Settings } from './settings.js';
