import { camelCase, pascalCase, plural, singular, snakeCase } from '../../model/index.js';
import type { Dialect } from './dialect.js';

/** FNV-1a, so that what is shortened alike is told apart the same way everywhere. */
function mark(text: string): string {
  let hash = 0x811c9dc5;
  for (const character of text) {
    hash ^= character.codePointAt(0) ?? 0;
    hash = Math.imul(hash, 0x01000193) >>> 0;
  }
  return hash.toString(36).padStart(7, '0');
}

/** An identifier no longer than the dialect allows: its beginning, and a mark of all of it. */
export function fitting({ longest, lengthOf }: Dialect, name: string): string {
  if (lengthOf(name) <= longest) return name;
  const end = `_${mark(name)}`;
  let kept = '';
  for (const character of name) {
    if (lengthOf(kept + character) > longest - end.length) break;
    kept += character;
  }
  return kept + end;
}

/** Hands out identifiers, each once, whatever the case of its letters. */
export class Identifiers {
  private readonly taken = new Set<string>();

  constructor(private readonly dialect: Dialect) {}

  /** The first that is free, else the last with a number. */
  free(...wanted: readonly string[]): string {
    const found = wanted.find((one) => !this.taken.has(fitting(this.dialect, one).toLowerCase()));
    const last = found ?? wanted.at(-1) ?? '';
    let name = fitting(this.dialect, last);
    for (let number = 2; this.taken.has(name.toLowerCase()); number++)
      name = fitting(this.dialect, `${last}_${number}`);
    this.taken.add(name.toLowerCase());
    return name;
  }
}

/** What the table of an entity is called: its plural in snake case, as far as that leads back to its name. */
export function tableName(entity: string): string {
  const name = snakeCase(plural(entity));
  return pascalCase(singular(name)) === entity ? name : snakeCase(entity);
}

/** What the column of an attribute is called: its name in snake case, as far as that leads back to it. */
export const columnName = (attribute: string): string => {
  const name = snakeCase(attribute);
  return camelCase(name) === attribute ? name : attribute;
};
