import type { SettingName, SettingValues } from './settings.js';

/** What may be chosen for a setting. */
export type SettingDomain =
  | { readonly kind: 'options'; readonly options: readonly (string | number)[] }
  | { readonly kind: 'integer'; readonly min: number; readonly max: number }
  | { readonly kind: 'text'; readonly pattern: RegExp; readonly expected: string };

/** Settings that can be chosen in this version, in the order they are shown. */
export const CHOOSABLE = {
  basePath: {
    kind: 'text',
    pattern: /^(?:\/[A-Za-z0-9._~-]{1,40}){0,4}$/,
    expected: 'a path such as /api, without trailing slash, or nothing',
  },
  version: {
    kind: 'text',
    pattern: /^[A-Za-z0-9._~-]{1,20}$/,
    expected: 'one path segment, such as v1',
  },
  collectionNames: { kind: 'options', options: ['plural', 'singular'] },
  pathCase: { kind: 'options', options: ['kebab', 'snake', 'camel'] },
  depth: { kind: 'integer', min: 1, max: 6 },
  implicitId: { kind: 'options', options: ['integer', 'uuid'] },
  pageSize: { kind: 'integer', min: 1, max: 100 },
  invalidStatus: { kind: 'options', options: [400, 422] },
} as const satisfies { readonly [Name in SettingName]?: SettingDomain };

export type ChoosableSetting = keyof typeof CHOOSABLE;

/** Settings that complete the model, which all arrangements of a design share. */
export const DESIGN_ONLY: ReadonlySet<string> = new Set<ChoosableSetting>(['implicitId']);

export interface SettingProblem {
  readonly name: string;
  readonly code: 'unknown' | 'options' | 'range' | 'pattern' | 'level';
  readonly message: string;
}

export type SettingsResult =
  | { readonly ok: true; readonly values: SettingValues }
  | { readonly ok: false; readonly problems: readonly SettingProblem[] };

/** Reads settings chosen at a level from whatever a client sent; everything wrong is reported at once. */
export function readSettings(
  given: Readonly<Record<string, unknown>>,
  level: 'design' | 'arrangement' = 'design',
): SettingsResult {
  const problems = Object.entries(given).flatMap(([name, value]) =>
    level === 'arrangement' && DESIGN_ONLY.has(name)
      ? [{ name, code: 'level' as const, message: 'It is chosen for the whole design only.' }]
      : (problemOf(name, value) ?? []),
  );
  return problems.length > 0 ? { ok: false, problems } : { ok: true, values: given };
}

function problemOf(name: string, value: unknown): SettingProblem | null {
  if (!isChoosable(name)) {
    const names = Object.keys(CHOOSABLE).join(', ');
    return {
      name,
      code: 'unknown',
      message: `There is no setting ${name} to be chosen; there are ${names}.`,
    };
  }
  const domain: SettingDomain = CHOOSABLE[name];
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
    case 'text': {
      const fits = typeof value === 'string' && domain.pattern.test(value);
      return fits ? null : { name, code: 'pattern', message: `Expected ${domain.expected}.` };
    }
  }
}

const isChoosable = (name: string): name is ChoosableSetting => Object.hasOwn(CHOOSABLE, name);
