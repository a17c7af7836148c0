import type { Settings } from '../../arrangement/index.js';
import type { StructureNames } from '../../contract/index.js';
import { kebabCase, pascalCase, snakeCase } from '../../model/index.js';
import { valueOf, type Deriving } from '../context.js';

const CASES: Readonly<Record<Settings['memberCase'], (name: string) => string>> = {
  // The notation writes names so.
  camel: (name) => name,
  snake: snakeCase,
  kebab: kebabCase,
  pascal: pascalCase,
};

/** A name as members and query parameters have it. */
export const memberName = (deriving: Deriving, name: string): string =>
  CASES[valueOf(deriving, 'memberCase')](name);

export function structureNames(deriving: Deriving): StructureNames {
  const named = (name: string): string => memberName(deriving, name);
  return {
    links: named('links'),
    items: named('items'),
    page: named('page'),
    number: named('number'),
    size: named('size'),
    offset: named('offset'),
    limit: named('limit'),
    totalItems: named('totalItems'),
    totalPages: named('totalPages'),
  };
}
