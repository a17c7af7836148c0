import type { Arrangement } from './choices.js';
import type { Effective, SettingLevel, SettingValue } from './settings/row.js';
import { SETTINGS, rowOf, type ChoosableSetting, type SettingName, type Settings } from './settings/table.js';
import type { SettingsById } from './settings/values.js';

/** What a setting may be asked for: a resource, or an operation of one. */
export interface SettingPlace {
  readonly resource: string;
  readonly verb?: string;
}

/** How the settings of an operation are filed: by its resource and its verb, which outlive its name. */
export const operationKey = (resource: string, verb: string): string => `${resource}:${verb}`;

export interface ResolvedSetting<Name extends SettingName> {
  readonly value: Settings[Name];
  readonly level: SettingLevel;
}

const DEFAULTS: { readonly [Name in SettingName]: { readonly default: Settings[Name] } } = SETTINGS;

/** The value of a setting in an arrangement, and the level it comes from: the nearest at which it was chosen. */
export function setting<Name extends SettingName>(
  arrangement: Arrangement,
  name: Name,
  at?: SettingPlace,
): ResolvedSetting<Name> {
  if (at !== undefined) {
    const near = nearest(arrangement, name, at);
    if (near !== null) return near;
  }
  const chosen = arrangement.own[name];
  if (chosen !== undefined) return { value: chosen, level: 'arrangement' };
  const above = arrangement.design[name];
  return above === undefined
    ? { value: DEFAULTS[name].default, level: 'default' }
    : { value: above, level: 'design' };
}

function nearest<Name extends SettingName>(
  { resources, operations }: Arrangement,
  name: Name,
  { resource, verb }: SettingPlace,
): ResolvedSetting<Name> | null {
  const ofOperation =
    verb === undefined ? undefined : chosenAt(operations, operationKey(resource, verb), name);
  if (ofOperation !== undefined) return { value: ofOperation, level: 'operation' };
  const ofResource = chosenAt(resources, resource, name);
  return ofResource === undefined ? null : { value: ofResource, level: 'resource' };
}

const chosenAt = <Name extends SettingName>(
  byId: SettingsById,
  id: string,
  name: Name,
): Settings[Name] | undefined => (Object.hasOwn(byId, id) ? byId[id]?.[name] : undefined);

/** Whether a setting has an effect, by what others are set to. */
export const hasEffect = (arrangement: Arrangement, name: ChoosableSetting, at?: SettingPlace): boolean =>
  (rowOf(name).when ?? []).every((effective) => holds(arrangement, effective, at));

function holds(arrangement: Arrangement, effective: Effective, at: SettingPlace | undefined): boolean {
  const name = effective.setting as SettingName;
  if (isMet(effective, setting(arrangement, name, at).value)) return true;
  // What holds for all is of use, too, where only some resource is set so.
  return (
    at === undefined &&
    Object.values(arrangement.resources).some((own) => {
      const value = own[name];
      return value !== undefined && isMet(effective, value);
    })
  );
}

function isMet(effective: Effective, value: SettingValue): boolean {
  if ('is' in effective) return effective.is.some((one) => one === value);
  if ('isEmpty' in effective) return typeof value === 'object' && value.length > 0;
  return typeof value === 'object' && value.some((item) => item === effective.includes);
}
