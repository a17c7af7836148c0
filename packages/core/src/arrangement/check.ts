import { SETTING_DEFAULTS, type SettingValues } from './settings.js';

/** What may be chosen for a setting. */
type Domain =
  | { readonly kind: 'options'; readonly options: readonly string[] }
  | { readonly kind: 'integer'; readonly min: number; readonly max: number };

const CHOOSABLE = {
  implicitId: { kind: 'options', options: ['integer', 'uuid'] },
  pageSize: { kind: 'integer', min: 1, max: SETTING_DEFAULTS.maxPageSize },
} as const satisfies Record<string, Domain>;

export interface SettingProblem {
  readonly name: string;
  readonly code: 'unknown' | 'options' | 'range';
  readonly message: string;
}

export type SettingsResult =
  | { readonly ok: true; readonly values: SettingValues }
  | { readonly ok: false; readonly problems: readonly SettingProblem[] };

/** Reads chosen settings from whatever a client sent; everything wrong is reported at once. */
export function readSettings(given: Readonly<Record<string, unknown>>): SettingsResult {
  const problems = Object.entries(given).flatMap(([name, value]) => problemOf(name, value) ?? []);
  return problems.length > 0 ? { ok: false, problems } : { ok: true, values: given };
}

function problemOf(name: string, value: unknown): SettingProblem | null {
  const domain = (
    Object.hasOwn(CHOOSABLE, name) ? CHOOSABLE[name as keyof typeof CHOOSABLE] : null
  ) as Domain | null;
  if (domain === null) {
    const names = Object.keys(CHOOSABLE).join(', ');
    return {
      name,
      code: 'unknown',
      message: `There is no setting ${name} to be chosen; there are ${names}.`,
    };
  }
  switch (domain.kind) {
    case 'options':
      return typeof value === 'string' && domain.options.includes(value)
        ? null
        : { name, code: 'options', message: `Expected one of ${domain.options.join(', ')}.` };
    case 'integer': {
      const fits = Number.isInteger(value) && Number(value) >= domain.min && Number(value) <= domain.max;
      const message = `Expected a whole number from ${domain.min} to ${domain.max}.`;
      return fits ? null : { name, code: 'range', message };
    }
  }
}
