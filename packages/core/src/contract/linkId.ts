import type { DerivedTarget } from './types.js';

/** What tells a link from all others of its resource, whatever it and what it leads to are called. */
export function linkId(relation: string, target: DerivedTarget): string {
  switch (target.kind) {
    case 'self':
      return 'self';
    case 'about':
      return relation;
    case 'page':
      return target.page;
    case 'pair':
      return 'edit';
    case 'description':
      return 'service-desc';
    case 'template':
    case 'items':
      return 'item';
    case 'owner':
      return 'up';
    case 'reference':
    case 'read':
      return target.relationship;
    case 'action':
      return target.transition;
    case 'filtered':
    case 'custom':
      return target.resource;
    case 'resource':
      return relation === 'up' || relation === 'collection' ? relation : target.resource;
  }
}

/** Relations of several links: their targets are an array, however many of them are there now. */
export function severalIn(links: readonly { readonly relation: string }[]): ReadonlySet<string> {
  const met = new Set<string>();
  const several = new Set<string>();
  for (const { relation } of links) {
    if (met.has(relation)) several.add(relation);
    met.add(relation);
  }
  return several;
}
