import type { ChoiceLevel, ListRow } from './settings/row.js';
import { CHOOSABLE_NAMES, hasLevel, isChoosable, rowOf } from './settings/table.js';
import type { SettingValues } from './settings/values.js';

export interface SettingProblem {
  readonly name: string;
  readonly code: 'unknown' | 'options' | 'range' | 'pattern' | 'list' | 'level';
  readonly message: string;
}

export type SettingsResult =
  | { readonly ok: true; readonly values: SettingValues }
  | { readonly ok: false; readonly problems: readonly SettingProblem[] };

/** Reads settings chosen at a level from whatever a client sent; everything wrong is reported at once. */
export function readSettings(
  given: Readonly<Record<string, unknown>>,
  level: ChoiceLevel = 'design',
): SettingsResult {
  const problems = Object.entries(given).flatMap(([name, value]) => problemOf(name, value, level) ?? []);
  return problems.length > 0 ? { ok: false, problems } : { ok: true, values: given };
}

function problemOf(name: string, value: unknown, level: ChoiceLevel): SettingProblem | null {
  if (!isChoosable(name)) {
    const names = CHOOSABLE_NAMES.join(', ');
    return {
      name,
      code: 'unknown',
      message: `There is no setting ${name} to be chosen; there are ${names}.`,
    };
  }
  const domain = rowOf(name);
  if (!hasLevel(name, level)) {
    const message = `It cannot be chosen for one ${level}; its levels are ${domain.levels.join(', ')}.`;
    return { name, code: 'level', message };
  }
  switch (domain.kind) {
    case 'options': {
      const message = `Expected one of ${domain.options.join(', ')}.`;
      return domain.options.some((option) => option === value) ? null : { name, code: 'options', message };
    }
    case 'integer': {
      const fits = Number.isInteger(value) && Number(value) >= domain.min && Number(value) <= domain.max;
      const message = `Expected a whole number from ${domain.min} to ${domain.max}.`;
      return fits ? null : { name, code: 'range', message };
    }
    case 'list':
      return isListOf(domain, value) ? null : { name, code: 'list', message: `Expected ${domain.expected}.` };
    case 'text': {
      const fits = typeof value === 'string' && domain.pattern.test(value);
      return fits ? null : { name, code: 'pattern', message: `Expected ${domain.expected}.` };
    }
  }
}

const isListOf = ({ items, min, max }: ListRow<string>, value: unknown): boolean =>
  Array.isArray(value) &&
  value.length >= min &&
  value.length <= max &&
  new Set(value).size === value.length &&
  value.every((item) =>
    items instanceof RegExp
      ? typeof item === 'string' && items.test(item)
      : items.some((one) => one === item),
  );
