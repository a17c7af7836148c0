import type { Settings } from '../../arrangement/index.js';
import type { Finding, StructureNames } from '../../contract/index.js';
import { kebabCase, memoize, pascalCase, snakeCase } from '../../model/index.js';
import { becauseSet, valueOf, type DerivationContext } from '../context.js';

const CASES: Readonly<Record<Settings['memberCase'], (name: string) => string>> = {
  // The notation writes names so.
  camel: (name) => name,
  snake: snakeCase,
  kebab: kebabCase,
  pascal: pascalCase,
};

/** A name as members and query parameters have it. */
export const memberName = (context: DerivationContext, name: string): string =>
  CASES[valueOf(context, 'memberCase')](name);

/** What the structures of answers are called. Of two that would be called the same, one keeps its usual name. */
export const structureNames = (context: DerivationContext): StructureNames => found(context).names;

/** That two of them were to be called the same. */
export const structureNameFindings = (context: DerivationContext): readonly Finding[] =>
  found(context).findings;

const found = memoize(findNames);

function findNames(context: DerivationContext): {
  readonly names: StructureNames;
  readonly findings: readonly Finding[];
} {
  const named = (name: string): string => memberName(context, name);
  const chosen = (['links', 'items', 'page'] as const).map(
    (usual) => [usual, named(valueOf(context, `${usual}Member`))] as const,
  );
  const apart = new Set(chosen.map(([, name]) => name)).size === chosen.length;
  const collision: Finding = {
    id: 'member.collide',
    severity: 'error',
    message: 'The items of a list, its page and its links need a name each; they have their usual ones.',
    about: 'entry',
    reasons: [becauseSet(context, 'finding.collision', ['itemsMember', 'pageMember', 'linksMember'])],
  };
  const [links, items, page] = chosen.map(([usual, name]) => (apart ? name : named(usual)));
  const names: StructureNames = {
    links: links ?? '',
    items: items ?? '',
    page: page ?? '',
    number: named('number'),
    size: named('size'),
    offset: named('offset'),
    limit: named('limit'),
    next: named('next'),
    prev: named('prev'),
    more: named('more'),
    totalItems: named('totalItems'),
    totalPages: named('totalPages'),
  };
  return { names, findings: apart ? [] : [collision] };
}
