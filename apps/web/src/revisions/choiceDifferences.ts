import type { Choices } from '@isomeros/core/arrangement';

/** A decision that two states of a design differ in. */
export interface ChoiceDifference {
  /** The name of a setting, or what was agreed to. */
  readonly what: string;
  readonly was: string;
  readonly is: string;
}

export function choiceDifferences(
  before: Choices | null,
  after: Choices | null,
): readonly ChoiceDifference[] {
  if (before === null || after === null) return [];
  const was = new Map<string, unknown>(Object.entries(before.settings));
  const is = new Map<string, unknown>(Object.entries(after.settings));
  const names = [...new Set([...was.keys(), ...is.keys()])].filter((name) => was.get(name) !== is.get(name));
  const said = (value: unknown): string =>
    value === undefined ? 'not set' : typeof value === 'string' ? value : JSON.stringify(value);
  const settings = names.map((name) => ({ what: name, was: said(was.get(name)), is: said(is.get(name)) }));
  const [old, now] = [new Set(before.answered), new Set(after.answered)];
  return [
    ...settings,
    ...after.answered.filter((id) => !old.has(id)).map((id) => ({ what: id, was: 'open', is: 'agreed' })),
    ...before.answered.filter((id) => !now.has(id)).map((id) => ({ what: id, was: 'agreed', is: 'open' })),
  ];
}
