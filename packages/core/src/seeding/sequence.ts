import { instantMillis, words, type Attribute, type Json } from '../model/index.js';
import type { Random } from './random.js';

const BEGINS = /^(departs|starts|start|begins|from|taken|opens|opened|issued|checkin|since)$/;
const ENDS = /^(arrives|ends|end|until|due|returned|closes|closed|expires|checkout)$/;
const DAY = 86_400_000;
const STEP = 300_000;

/**
 * Puts pairs such as `departsAt` and `arrivesAt`, or `takenOn` and `dueOn`, in their natural order:
 * what ends is some time after what begins. Changes the values in place.
 */
export function putInSequence(
  attributes: readonly Attribute[],
  values: Record<string, Json>,
  random: Random,
): void {
  const named = (attribute: Attribute, pattern: RegExp): boolean =>
    words(attribute.name).some((word) => pattern.test(word));
  const begin = attributes.find((attribute) => isMoment(attribute) && named(attribute, BEGINS));
  if (begin === undefined) return;
  const from = momentOf(values[begin.id]);
  if (from === null) return;
  for (const attribute of attributes) {
    if (
      attribute.type.kind !== begin.type.kind ||
      !named(attribute, ENDS) ||
      typeof values[attribute.id] !== 'string'
    )
      continue;
    values[attribute.id] =
      begin.type.kind === 'date'
        ? new Date(from + random.integer(1, 28) * DAY).toISOString().slice(0, 10)
        : new Date(from + random.integer(7, 60) * STEP).toISOString().replace('.000Z', 'Z');
  }
}

const isMoment = ({ type }: Attribute): boolean => type.kind === 'date' || type.kind === 'instant';

function momentOf(value: Json | undefined): number | null {
  if (typeof value !== 'string') return null;
  const millis = value.length === 10 ? Date.parse(value) : instantMillis(value);
  return Number.isNaN(millis) ? null : millis;
}
