import type { SettingName, Settings } from './table.js';

/** Settings that somebody chose; the others keep the value they inherit. */
export type SettingValues = { readonly [Name in SettingName]?: Settings[Name] };

/** Settings of single resources or operations, by their id. */
export type SettingsById = { readonly [name: string]: SettingValues };
