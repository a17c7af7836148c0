import { capital, ownsItself, withArticle, type Attribute, type EntityStorage } from '../model/index.js';

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

/** What could not be made, and is needed first; `null` where all that is needed is there. */
export function missing(
  { owner, references }: EntityStorage,
  isThere: (entity: string) => boolean,
): string | null {
  const needed = [
    ...(owner === null || ownsItself(owner) ? [] : [owner.from]),
    ...references.filter(({ cardinality }) => cardinality === 'one').map(({ to }) => to),
  ].find((name) => !isThere(name));
  return needed === undefined ? null : `There is no ${needed}, which it needs.`;
}

/** That there are no more places; `null` where there may be any number. */
export function slotsTaken({ owner }: EntityStorage, places: number): string | null {
  if (owner === null || owner.cardinality === 'many') return null;
  const count = owner.cardinality === 'one' ? 'one' : 'at most one';
  return `${capital(withArticle(owner.from))} owns ${count}, and there are ${places}.`;
}
