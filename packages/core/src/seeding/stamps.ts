import type { Attribute, EntityStorage, Json } from '../model/index.js';
import type { Random } from './random.js';

/** The records are made over so long, until now. */
const SPAN_MS = 90 * 86_400_000;
const SECOND = 1_000;

/** Whether the server writes the time of a write into an attribute. */
export const isStamped = (attribute: Attribute): boolean =>
  attribute.touched || (attribute.generated && attribute.type.kind === 'instant');

const instant = (millis: number): string => new Date(millis).toISOString();

/** A time that no other record has, until it is known how many there are. */
export const provisionalStamp = (now: number, recordsBefore: number): string =>
  instant(now - SPAN_MS + recordsBefore);

/**
 * Spreads the times at which records were made, and changed last, over a while before now, in the order in which
 * they were made: owners and what is referred to come first. Changes the values in place.
 */
export function stampTimes(
  rows: readonly { readonly entity: string; readonly values: Record<string, Json> }[],
  storages: ReadonlyMap<string, EntityStorage>,
  now: number,
  random: Random,
): void {
  const step = SPAN_MS / (rows.length + 1);
  const unit = step >= 2 * SECOND ? SECOND : 1;
  const at = (place: number): number => Math.floor((now - SPAN_MS + step * place) / unit) * unit;
  rows.forEach((row, index) => {
    for (const attribute of storages.get(row.entity)?.attributes ?? []) {
      if (!isStamped(attribute) || typeof row.values[attribute.id] !== 'string') continue;
      const made = index + 1;
      // Half of all records were never changed after they were made.
      const place =
        attribute.touched && random.chance(0.5) ? made + random.next() * (rows.length - index) : made;
      row.values[attribute.id] = instant(at(place));
    }
  });
}
