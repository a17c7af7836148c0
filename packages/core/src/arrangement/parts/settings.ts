import { isJsonObject, type Json } from '../../model/index.js';
import { escapePointer, choiceProblem, type ReadResult } from '../reading.js';
import { readSettings } from '../readSettings.js';
import type { ChoiceLevel, ChoosableRow, SettingValue } from '../settings/row.js';
import {
  CHOOSABLE_NAMES,
  hasLevel,
  rowOf,
  SETTINGS,
  type ChoosableSetting,
  type SettingName,
} from '../settings/table.js';
import type { SettingsById, SettingValues } from '../settings/values.js';
import {
  entryNamed,
  orNone,
  readEach,
  withEntry,
  wrong,
  type Decided,
  type ArrangementPart,
} from './part.js';

/** Reads settings as they can be chosen at a level. */
export function readLevel(given: Json, pointer: string, level: ChoiceLevel): ReadResult<SettingValues> {
  if (!isJsonObject(given))
    return wrong({}, pointer, 'Expected an object from names of settings to their values.');
  const read = readSettings(given, level);
  if (read.ok) return { value: read.values, problems: [] };
  return {
    value: {},
    problems: read.problems.map(({ name, code, message }) =>
      choiceProblem(`${pointer}/${escapePointer(name)}`, code, message),
    ),
  };
}

/** The schema of settings as they can be chosen at a level. */
export const settingsSchema = (level: ChoiceLevel): object => ({
  type: 'object',
  properties: Object.fromEntries(
    CHOOSABLE_NAMES.filter((name) => hasLevel(name, level)).map((name) => [name, schemaOf(rowOf(name))]),
  ),
  additionalProperties: false,
});

function schemaOf(row: ChoosableRow): object {
  switch (row.kind) {
    case 'options':
      return { enum: row.options };
    case 'integer':
      return { type: 'integer', minimum: row.min, maximum: row.max };
    case 'text':
      return { type: 'string', pattern: row.pattern.source };
    case 'list': {
      const items =
        row.items instanceof RegExp ? { type: 'string', pattern: row.items.source } : { enum: row.items };
      return { type: 'array', items, minItems: row.min, maxItems: row.max, uniqueItems: true };
    }
  }
}

const titleOf = (name: string): string =>
  Object.hasOwn(SETTINGS, name) ? SETTINGS[name as SettingName].title : name;

/** The value of a setting as people read it. */
export const settingText = (value: SettingValue): string =>
  typeof value === 'object' ? (value.length === 0 ? 'none' : value.join(', ')) : String(value);

/** Settings in words; `where` follows the title of each. */
export const decidedSettings = (values: SettingValues, where = ''): readonly Decided[] =>
  Object.entries(values).map(([name, value]) => [titleOf(name) + where, settingText(value)]);

/** A value for a setting; `null` where it inherits from above again. */
export interface SettingEdit {
  readonly name: ChoosableSetting;
  readonly value: SettingValue | null;
}

export const editSettings = (values: SettingValues, { name, value }: SettingEdit): SettingValues =>
  withEntry(values as Readonly<Record<string, SettingValue>>, name, value);

/** What was chosen for the whole arrangement. */
export const SETTINGS_PART: ArrangementPart<SettingValues, SettingEdit> = {
  empty: {},
  read: (given, pointer) => readLevel(given, pointer, 'arrangement'),
  schema: settingsSchema('arrangement'),
  decided: (values) => decidedSettings(values),
  edit: editSettings,
};

/** A value for a setting of a resource or an operation. */
export interface SettingEditNear extends SettingEdit {
  readonly id: string;
}

const near = (
  level: 'resource' | 'operation',
  description: string,
): ArrangementPart<SettingsById, SettingEditNear> => ({
  empty: {},
  read: (given, pointer) =>
    readEach(given, pointer, `Expected an object from ids of ${level}s to their settings.`, (value, at) =>
      readLevel(value, at, level),
    ),
  schema: { type: 'object', description, additionalProperties: settingsSchema(level) },
  decided: (byId) => Object.entries(byId).flatMap(([id, values]) => decidedSettings(values, ` of ${id}`)),
  edit: (byId, { id, ...edit }) =>
    withEntry(byId, id, orNone(editSettings(entryNamed(byId, id) ?? {}, edit))),
});

export const RESOURCES_PART = near('resource', 'Settings by the id of a resource.');
export const OPERATIONS_PART = near('operation', 'Settings by the id of a resource, a colon and a verb.');
