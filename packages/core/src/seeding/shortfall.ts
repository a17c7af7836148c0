import type { Attribute } from '../model/index.js';

/** An entity that got fewer records than wanted, and why. */
export interface Shortfall {
  readonly entity: string;
  readonly wanted: number;
  readonly made: number;
  readonly why: string;
}

export const UNFILLED = 'Something that it needs could not be made.';

const MOST_SHOWN = 60;

/** That there is no value for an attribute, with the pattern it would have had to match. */
export function unfoundText({ name, type }: Pick<Attribute, 'name' | 'type'>): string {
  if (type.kind !== 'text' || type.pattern === null) return `No value was found for ${name}.`;
  const { pattern } = type;
  const shown = pattern.length <= MOST_SHOWN ? pattern : `${pattern.slice(0, MOST_SHOWN)}…`;
  return `No value was found for ${name} that matches ${shown}.`;
}
