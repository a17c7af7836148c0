import type { Attribute, Json } from '../model/index.js';

/** The clock, the dice and the numbers, handed in. */
export interface ValueRuntime {
  /** Milliseconds since 1970. */
  readonly now: number;
  readonly uuid: () => string;
  /** The next number of a counted attribute; `null` where it is counted later. */
  readonly next: (attribute: Attribute) => number | null;
}

/** What an attribute has of which no value is given: what is generated, else its default; `null` where it is unset. */
export function unsetValue(attribute: Attribute, { now, uuid, next }: ValueRuntime): Json {
  const { type, generated, touched, defaultValue } = attribute;
  if (touched || (generated && type.kind === 'instant')) return new Date(now).toISOString();
  if (!generated) return defaultValue;
  if (type.kind === 'uuid') return uuid();
  return type.kind === 'integer' ? next(attribute) : defaultValue;
}
