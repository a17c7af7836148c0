import type { Settings } from '../../arrangement/index.js';
import type { StructureNames } from '../../contract/index.js';
import { kebabCase, once, pascalCase, snakeCase } from '../../model/index.js';
import { becauseSet, valueOf, type Deriving } from '../context.js';

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

/** What the structures of answers are called. Of two that would be called the same, one keeps its usual name. */
export const structureNames = once(findNames);

function findNames(deriving: Deriving): StructureNames {
  const named = (name: string): string => memberName(deriving, name);
  const chosen = (['links', 'items', 'page'] as const).map(
    (usual) => [usual, named(valueOf(deriving, `${usual}Member`))] as const,
  );
  const apart = new Set(chosen.map(([, name]) => name)).size === chosen.length;
  if (!apart)
    deriving.findings.push({
      id: 'member.collide',
      severity: 'error',
      message: 'The items of a list, its page and its links need a name each; they have their usual ones.',
      about: 'entry',
      reasons: [becauseSet(deriving, 'finding.collision', ['itemsMember', 'pageMember', 'linksMember'])],
    });
  const [links, items, page] = chosen.map(([usual, name]) => (apart ? name : named(usual)));
  return {
    links: links ?? '',
    items: items ?? '',
    page: page ?? '',
    number: named('number'),
    size: named('size'),
    offset: named('offset'),
    limit: named('limit'),
    next: named('next'),
    prev: named('prev'),
    totalItems: named('totalItems'),
    totalPages: named('totalPages'),
  };
}
