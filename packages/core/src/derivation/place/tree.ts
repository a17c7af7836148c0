import type { Finding, Reasons, ResourceKind, Segment, Via } from '../../contract/index.js';
import type { ScalarType } from '../../model/index.js';
import { keyOf, type Entity, type Owns } from '../../model/index.js';
import type { DerivationContext } from '../context.js';
import { keyParameter } from '../names/parameters.js';

/** A resource with its place in the path tree, before its links are derived. */
export interface PlacedResource {
  readonly id: string;
  readonly kind: ResourceKind;
  readonly canonical: boolean;
  readonly segments: readonly Segment[];
  readonly path: string;
  readonly parent: string | null;
  readonly entity: string | null;
  readonly via: Via | null;
  readonly transition: string | null;
  readonly custom: string | null;
  readonly word: string | null;
  readonly reasons: Reasons;
}

type NewPlace = Omit<PlacedResource, 'path' | 'canonical' | 'transition' | 'custom' | 'word'> & {
  readonly canonical?: boolean;
  readonly transition?: string;
  readonly custom?: string;
  readonly word?: string;
};

/** The path tree while it grows. A path is given once; whoever comes second is left out and reported. */
export class PathTree {
  readonly placed: PlacedResource[] = [];
  /** What stands at the root though something owns it, still to be placed; gives the item, if there is one. */
  readonly atRoot: (() => PlacedResource | null)[] = [];
  private readonly byPath = new Map<string, PlacedResource>();

  constructor(
    private readonly findings: Finding[],
    /** Hangs below a resource what is not derived from the model. */
    private readonly onPlaced: (tree: PathTree, resource: PlacedResource) => void,
  ) {}

  add(given: NewPlace): PlacedResource | null {
    const { id, kind, canonical = true, transition = null, custom = null, word = null, ...rest } = given;
    const resource = { id, kind, canonical, ...rest, transition, custom, word };
    const path = pathTemplate(resource.segments);
    const collisionKey = resource.segments.map((s) => (s.kind === 'id' ? '/{}' : `/${s.text}`)).join('');
    const known = this.byPath.get(collisionKey);
    if (known !== undefined) {
      this.findings.push({
        id: 'path.collide',
        severity: 'error',
        message: `${path} is the path of two resources; the second is left out. Give one of them another name.`,
        about: known.id,
        reasons: [
          { rule: 'finding.collision', because: resource.reasons.flatMap((reason) => reason.because) },
        ],
      });
      return null;
    }
    const placed = { ...resource, path };
    this.byPath.set(collisionKey, placed);
    this.placed.push(placed);
    this.onPlaced(this, placed);
    return placed;
  }
}

/** The path of segments, as a template. */
export const pathTemplate = (segments: readonly Segment[]): string =>
  segments.map((segment) => `/${segment.kind === 'id' ? `{${segment.parameter}}` : segment.text}`).join('');

export const idCount = (segments: readonly Segment[]): number =>
  segments.filter((segment) => segment.kind === 'id').length;

/** The segment that holds an entity's key; `as` names it where one is there already. */
export const idSegment = (context: DerivationContext, entity: Entity, as?: string): Segment => ({
  kind: 'id',
  parameter: keyParameter(context, entity, as),
  entity: entity.name,
  type: keyType(entity),
});

/** The type of an entity's key. The notation allows scalar keys only. */
export function keyType(entity: Entity): ScalarType {
  const { type } = keyOf(entity).attribute;
  if (type.kind === 'json' || type.kind === 'list' || type.kind === 'value') {
    throw new Error(`The key of ${entity.name} is ${type.kind}, which no parser lets pass.`);
  }
  return type;
}

export const itemId = (entity: Entity): string => `${entity.id}/item`;
/** Where what stands below its owner is read at the root too. */
export const flatItem = (entity: Entity): string => `${entity.id}/flat-item`;
/** Where what stands below its owner is listed at the root too. */
export const flatList = (owns: Owns): string => `${owns.id}/flat`;
