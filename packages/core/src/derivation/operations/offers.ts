import { EFFECTS, leavableAs, METHODS, type LeftOutOperation, type Verb } from '../../contract/index.js';
import { becauseSetAt, entityNamed, valueOf, type DerivationContext } from '../context.js';
import { carriedBy } from './carried.js';
import { isSentBy } from '../shapes/customOperations.js';
import { isUncreatable } from '../shapes/uncreatable.js';
import { customOf } from '../customOperations/index.js';
import type { PlacedResource } from '../place/index.js';

/** What a resource can do, and what of it is left out. */
interface Offer {
  readonly offered: readonly Verb[];
  readonly leftOut: readonly LeftOutOperation[];
}

/** What each resource can do by its kind and its model, less what the arrangement leaves out. */
export class Offers {
  private readonly byId: ReadonlyMap<string, Offer>;

  constructor(
    context: DerivationContext,
    readonly resources: readonly PlacedResource[],
  ) {
    this.byId = new Map(resources.map((resource) => [resource.id, offerOf(context, resource)]));
  }

  offered(resource: string): readonly Verb[] {
    return this.byId.get(resource)?.offered ?? [];
  }

  leftOut(resource: string): readonly LeftOutOperation[] {
    return this.byId.get(resource)?.leftOut ?? NOTHING;
  }

  /** Whether a resource can be read or listed. */
  isReadable(resource: string): boolean {
    return this.offered(resource).some((verb) => METHODS[verb] === 'GET');
  }
}

const NOTHING: readonly LeftOutOperation[] = [];

function offerOf(context: DerivationContext, resource: PlacedResource): Offer {
  const able = verbsOf(context, resource);
  const at = { resource: resource.id };
  const unwanted = valueOf(context, 'leftOut', at);
  if (unwanted.length === 0) return { offered: able, leftOut: NOTHING };
  const isUnwanted = (verb: Verb): boolean => unwanted.some((one) => one === leavableAs(resource, verb));
  const reasons = [becauseSetAt(context, 'operation.left-out', ['leftOut'], at)];
  return {
    offered: able.filter((verb) => !isUnwanted(verb)),
    leftOut: able.filter(isUnwanted).map((verb): LeftOutOperation => {
      const method = METHODS[verb];
      return { verb, method, effect: EFFECTS[method], reasons };
    }),
  };
}

/** The verbs of a resource, by its kind. A required slot is never removed alone. */
function verbsOf(context: DerivationContext, resource: PlacedResource): readonly Verb[] {
  switch (resource.kind) {
    case 'entry':
      return ['entry'];
    case 'collection':
      return resource.canonical && !isUncreatableAt(context, resource) ? ['list', 'create'] : ['list'];
    case 'reverse':
      return ['list'];
    case 'reference':
      return ['read'];
    case 'item':
      return resource.canonical ? ['read', 'replace', 'change', 'remove'] : ['read'];
    case 'pairing':
      return ['list'];
    case 'pair':
      return carriedBy(context, resource) === null
        ? ['read', 'attach', 'detach']
        : ['read', 'attach', 'change', 'detach'];
    case 'action':
      return resource.custom === null ? ['transition'] : ['custom'];
    case 'collection-action':
      return ['custom'];
    case 'query':
      return queryVerbs(context, resource);
    case 'aggregate':
    case 'fixed':
      return ['read'];
    case 'singleton':
      return isOptionalSlot(context, resource)
        ? ['read', 'replace', 'change', 'remove']
        : ['read', 'replace', 'change'];
  }
}

/** A query is read, or, where it is sent by POST, carried out. */
function queryVerbs(context: DerivationContext, resource: PlacedResource): readonly Verb[] {
  const kind = customOf(context, resource)?.custom.kind;
  if (kind === 'caller') return ['read'];
  return [
    ...(isSentBy(context, resource, 'GET') ? ([kind === 'query' ? 'list' : 'read'] as const) : []),
    ...(isSentBy(context, resource, 'POST') ? (['custom'] as const) : []),
  ];
}

/** Whether records of it cannot be made, because something they need is neither accepted nor made. */
export const isUncreatableAt = (context: DerivationContext, { entity }: PlacedResource): boolean =>
  entity !== null && isUncreatable(context, entityNamed(context, entity));

export function isOptionalSlot(context: DerivationContext, resource: PlacedResource): boolean {
  if (resource.kind !== 'singleton' || resource.entity === null) return false;
  return context.index.ownerOf.get(resource.entity)?.cardinality === 'optional';
}
