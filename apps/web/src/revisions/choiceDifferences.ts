import type { Choices, SettingValues } from '@isomeros/core/arrangement';

/** A decision that two states of a design differ in. */
export interface ChoiceDifference {
  /** The name of a setting, or what was agreed to. */
  readonly what: string;
  /** The arrangement it was chosen for; `null` for the whole design. */
  readonly of: string | null;
  readonly was: string;
  readonly is: string;
}

export function choiceDifferences(
  before: Choices | null,
  after: Choices | null,
): readonly ChoiceDifference[] {
  if (before === null || after === null) return [];
  const names = new Set([...Object.keys(before.arrangements), ...Object.keys(after.arrangements)]);
  const [old, now] = [new Set(before.answered), new Set(after.answered)];
  const agreed = after.answered.filter((id) => !old.has(id));
  const reopened = before.answered.filter((id) => !now.has(id));
  return [
    ...settingDifferences(null, before.settings, after.settings),
    ...[...names].flatMap((name) =>
      settingDifferences(name, before.arrangements[name] ?? {}, after.arrangements[name] ?? {}),
    ),
    ...agreed.map((id) => ({ what: id, of: null, was: 'open', is: 'agreed' })),
    ...reopened.map((id) => ({ what: id, of: null, was: 'agreed', is: 'open' })),
  ];
}

function settingDifferences(
  of: string | null,
  before: SettingValues,
  after: SettingValues,
): readonly ChoiceDifference[] {
  const was = new Map<string, unknown>(Object.entries(before));
  const is = new Map<string, unknown>(Object.entries(after));
  const names = [...new Set([...was.keys(), ...is.keys()])].filter((name) => was.get(name) !== is.get(name));
  const said = (value: unknown): string =>
    value === undefined ? 'not set' : typeof value === 'string' ? value : JSON.stringify(value);
  return names.map((name) => ({ what: name, of, was: said(was.get(name)), is: said(is.get(name)) }));
}
