import { isJsonObject, type Json } from '../model/index.js';
import { DEEPEST_FIXED, MOST_PARTS, type FixedValue } from './customOperations.js';
import { isLiteral } from './inputReading.js';
import type { ObjectReading } from './objectReading.js';

/** Reads a part of a fixed answer; `null`, and reported, where it is none. */
export function readFixedValue(
  reading: ObjectReading,
  given: Json,
  at: string,
  depth: number,
): FixedValue | null {
  const kind = isJsonObject(given) ? given['kind'] : undefined;
  switch (depth <= DEEPEST_FIXED ? kind : undefined) {
    case 'now':
    case 'version':
      return reading.object(given, at, ['kind']) === null
        ? null
        : { kind: kind === 'now' ? kind : 'version' };
    case 'literal': {
      const one = reading.object(given, at, ['kind', 'value']);
      const value = one?.['value'];
      if (value === null || isLiteral(value)) return { kind: 'literal', value };
      reading.report(`${at}/value`, 'type', 'Expected a text, a number, true, false or null.');
      return null;
    }
    case 'list': {
      const one = reading.object(given, at, ['kind', 'items']);
      const items = reading.list(one?.['items'] ?? [], `${at}/items`, MOST_PARTS, (item, to) =>
        readFixedValue(reading, item, to, depth + 1),
      );
      return { kind: 'list', items };
    }
    case 'object': {
      const one = reading.object(given, at, ['kind', 'members']);
      const members = reading.list(one?.['members'] ?? [], `${at}/members`, MOST_PARTS, (item, to) => {
        const member = reading.object(item, to, ['name', 'value']);
        const name = member === null ? null : reading.text(member, 'name', to, /^.*$/s, 'a text');
        const value =
          member === null ? null : readFixedValue(reading, member['value'] ?? null, `${to}/value`, depth + 1);
        return name === null || value === null ? null : { name, value };
      });
      return { kind: 'object', members };
    }
    default:
      reading.report(
        at,
        'options',
        `Expected literal, now, version, list or object, at most ${DEEPEST_FIXED} deep.`,
      );
      return null;
  }
}
