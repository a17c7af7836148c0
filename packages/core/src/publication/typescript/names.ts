/** Words that no type may be called (TypeScript's predefined types), in whatever case they come. */
const RESERVED: ReadonlySet<string> = new Set([
  'any',
  'bigint',
  'boolean',
  'never',
  'null',
  'number',
  'object',
  'string',
  'symbol',
  'undefined',
  'unknown',
  'void',
]);

/** What the document itself declares. */
export const DECLARED = ['Operations', 'Paths', 'Refused'] as const;

/** Identifiers for schemas, each its own: `Sailing.create` is `SailingCreate`. */
export function typeNames(schemas: readonly string[]): ReadonlyMap<string, string> {
  const taken = new Set<string>(DECLARED);
  return new Map(
    schemas.map((schema) => {
      const words = schema.split(/[^A-Za-z0-9_$]+/).filter((word) => word !== '');
      const joined = words.map((word) => word.charAt(0).toUpperCase() + word.slice(1)).join('');
      const wanted = /^[A-Za-z_$]/.test(joined) && !RESERVED.has(joined) ? joined : `_${joined}`;
      let free = wanted;
      for (let number = 2; taken.has(free); number++) free = `${wanted}${number}`;
      taken.add(free);
      return [schema, free];
    }),
  );
}
