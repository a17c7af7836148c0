import type {
  Effect,
  Method,
  Operation,
  OutlineOperation,
  QueryParameter,
  Reason,
  RuleId,
  Verb,
} from '../../contract/index.js';
import {
  ownsItself,
  phrase,
  plural,
  roleOf,
  singular,
  withArticle,
  type Entity,
  type PairsWith,
} from '../../model/index.js';
import { because, becauseSet, entityNamed, valueOf, type Deriving } from '../context.js';
import { transitionName } from '../names/transitions.js';
import type { Placed } from '../place/index.js';
import { ENTRY_SHAPE, pairShapeName, shapeName, type PairSide, type Traits } from '../shapes/index.js';
import { OperationNames } from './names.js';
import { listParameters } from './query.js';
import { isCreateWithheld, reportWithheld } from './withheld.js';
import { deriveResponses, restrictedEntities } from './responses.js';

const METHODS: Readonly<Record<Verb, Method>> = {
  entry: 'GET',
  list: 'GET',
  read: 'GET',
  create: 'POST',
  replace: 'PUT',
  change: 'PATCH',
  remove: 'DELETE',
  attach: 'PUT',
  detach: 'DELETE',
  transition: 'POST',
};

const EFFECTS: Readonly<Record<Method, Effect>> = {
  GET: 'safe',
  PUT: 'idempotent',
  DELETE: 'idempotent',
  POST: 'neither',
  PATCH: 'neither',
};

export const JSON_TYPE = 'application/json';
export const MERGE_PATCH_TYPE = 'application/merge-patch+json';

/** What each resource can do, in the order of the path tree. */
export function deriveOperations(
  deriving: Deriving,
  resources: readonly Placed[],
  traits: Traits,
): readonly Operation[] {
  for (const { kind, canonical, entity } of resources)
    if (kind === 'collection' && canonical && entity !== null) {
      const found = entityNamed(deriving, entity);
      if (isCreateWithheld(deriving, found)) reportWithheld(deriving, found);
    }
  const names = new OperationNames(deriving);
  const restricted = restrictedEntities(deriving);
  return resources.flatMap((resource) =>
    verbsOf(deriving, resource).map((verb) =>
      deriveOperation(deriving, resource, verb, traits, names, restricted),
    ),
  );
}

/** The same operations with nothing but what they are called and do. */
export function outlineOperations(
  deriving: Deriving,
  resources: readonly Placed[],
): readonly OutlineOperation[] {
  const names = new OperationNames(deriving);
  return resources.flatMap((resource) =>
    verbsOf(deriving, resource).map((verb) => {
      const method = METHODS[verb];
      const { id } = names.name(verb, method, resource);
      return { id, verb, method, resource: resource.id, effect: EFFECTS[method] };
    }),
  );
}

/** The verbs of a resource, by its kind. A required slot is never removed alone. */
function verbsOf(deriving: Deriving, resource: Placed): readonly Verb[] {
  switch (resource.kind) {
    case 'entry':
      return ['entry'];
    case 'collection':
      return resource.canonical && !isWithheld(deriving, resource) ? ['list', 'create'] : ['list'];
    case 'reverse':
      return ['list'];
    case 'reference':
      return ['read'];
    case 'item':
      return resource.canonical ? ['read', 'replace', 'change', 'remove'] : ['read'];
    case 'pairing':
      return ['list'];
    case 'pair':
      return carriedBy(deriving, resource) === null
        ? ['read', 'attach', 'detach']
        : ['read', 'attach', 'change', 'detach'];
    case 'action':
      return ['transition'];
    case 'singleton':
      return isOptionalSlot(deriving, resource)
        ? ['read', 'replace', 'change', 'remove']
        : ['read', 'replace', 'change'];
  }
}

const isWithheld = (deriving: Deriving, { entity }: Placed): boolean =>
  entity !== null && isCreateWithheld(deriving, entityNamed(deriving, entity));

function isOptionalSlot(deriving: Deriving, resource: Placed): boolean {
  if (resource.kind !== 'singleton' || resource.entity === null) return false;
  return deriving.index.ownerOf.get(resource.entity)?.cardinality === 'optional';
}

function deriveOperation(
  deriving: Deriving,
  resource: Placed,
  verb: Verb,
  traits: Traits,
  names: OperationNames,
  restricted: ReadonlySet<string>,
): Operation {
  const method = METHODS[verb];
  const entity = resource.entity === null ? null : entityNamed(deriving, resource.entity);
  const { id, byOwner } = names.name(verb, method, resource);
  const query: readonly QueryParameter[] =
    verb === 'list' && entity !== null
      ? listParameters(deriving, resource, traits.get(entity.name) ?? [])
      : [];
  const carrying = carriedBy(deriving, resource);
  const acceptedTypes = typesOf(verb, carrying);
  const optionalSlot = isOptionalSlot(deriving, resource);
  return {
    id,
    verb,
    method,
    resource: resource.id,
    effect: EFFECTS[method],
    summary: summaryOf(deriving, verb, resource, entity),
    query,
    unknownParameters: valueOf(deriving, 'unknownParameters', { resource: resource.id, verb }),
    acceptedTypes,
    accepts: entity === null ? null : acceptedShape(verb, entity, carrying, resource),
    returns: entity === null ? ENTRY_SHAPE : returnedShape(deriving, verb, entity, carrying, resource),
    responses: deriveResponses(deriving, {
      verb,
      resource,
      entity,
      hasBody: acceptedTypes.length > 0,
      fillsSlot: optionalSlot && !isWithheld(deriving, resource),
      optionalSlot,
      carries: carrying !== null,
      canMove:
        (verb === 'replace' || verb === 'change') &&
        resource.kind !== 'pair' &&
        (traits.get(entity?.name ?? '') ?? []).some(({ transitions }) => transitions.length > 0),
      removalCanBeRefused: entity !== null && restricted.has(entity.name),
    }),
    reasons: operationReasons(
      deriving,
      verb,
      resource,
      entity,
      byOwner,
      optionalSlot && !isWithheld(deriving, resource),
    ),
  };
}

/** The pairing whose pairs carry a value, where the resource is about those. */
function carriedBy(deriving: Deriving, resource: Placed): PairsWith | null {
  if (resource.kind !== 'pair' && (resource.kind !== 'pairing' || !resource.canonical)) return null;
  const pairs = deriving.index.relationshipById.get(resource.via?.relationship ?? '');
  return pairs?.kind === 'pairs' && pairs.carrying !== null && deriving.index.values.has(pairs.carrying)
    ? pairs
    : null;
}

function typesOf(verb: Verb, carrying: PairsWith | null): readonly string[] {
  switch (verb) {
    case 'create':
    case 'replace':
      return [JSON_TYPE];
    case 'change':
      return [MERGE_PATCH_TYPE, JSON_TYPE];
    case 'attach':
      return carrying === null ? [] : [JSON_TYPE];
    case 'entry':
    case 'list':
    case 'read':
    case 'remove':
    case 'detach':
    case 'transition':
      return [];
  }
}

function acceptedShape(
  verb: Verb,
  entity: Entity,
  carrying: PairsWith | null,
  resource: Placed,
): string | null {
  if (verb === 'attach') return carrying?.carrying ?? null;
  if (verb === 'change' && carrying !== null) return pairShapeName(carrying, 'change', sideOf(resource));
  return verb === 'create' || verb === 'replace' || verb === 'change' ? shapeName(entity.name, verb) : null;
}

function returnedShape(
  deriving: Deriving,
  verb: Verb,
  entity: Entity,
  carrying: PairsWith | null,
  resource: Placed,
): string | null {
  const at = { resource: resource.id, verb };
  if (verb === 'detach') return null;
  if (verb === 'remove' && valueOf(deriving, 'removeAnswers', at) === 'nothing') return null;
  if (verb === 'create' && valueOf(deriving, 'createAnswers', at) === 'nothing') return null;
  const purpose = verb === 'list' ? 'page' : 'item';
  return carrying === null
    ? shapeName(entity.name, purpose)
    : pairShapeName(carrying, purpose, sideOf(resource));
}

/** From which side of a pairing a resource looks at it. */
const sideOf = ({ via }: Placed): PairSide => (via?.direction === 'paired-back' ? 'far' : 'near');

function operationReasons(
  deriving: Deriving,
  verb: Verb,
  resource: Placed,
  entity: Entity | null,
  byOwner: boolean,
  optionalSlot: boolean,
): readonly Reason[] {
  const statements = entity === null ? [] : [entity];
  const name = nameReason(deriving, entity, byOwner);
  const placed: Reason[] = [...resource.reasons.slice(0, 1)];
  if (verb === 'entry') return [...placed, name];
  const rule: RuleId = `operation.${verb}`;
  const reasons = [because(rule, ...statements), ...placed, name];
  if (verb === 'replace' && optionalSlot) reasons.push(because('operation.put-creates', ...statements));
  return reasons;
}

/** Why operations of an entity are called as they are, made once. */
const nameReasons = new WeakMap<Deriving, Map<string, Reason>>();

function nameReason(deriving: Deriving, entity: Entity | null, byOwner: boolean): Reason {
  let known = nameReasons.get(deriving);
  if (known === undefined) {
    known = new Map();
    nameReasons.set(deriving, known);
  }
  const key = `${byOwner ? '!' : ''}${entity?.id ?? ''}`;
  let reason = known.get(key);
  if (reason === undefined) {
    const rule = byOwner ? 'operation.unnameable' : 'operation.name';
    reason = becauseSet(deriving, rule, ['operationNames'], ...(entity === null ? [] : [entity]));
    known.set(key, reason);
  }
  return reason;
}

function summaryOf(deriving: Deriving, verb: Verb, resource: Placed, entity: Entity | null): string {
  if (entity === null) return 'Where everything begins: links to what can be reached first';
  const noun = phrase(entity.name);
  const many = phrase(plural(entity.name));
  const owner = below(deriving, resource);
  switch (verb) {
    case 'entry':
    case 'list':
      return `List the ${many}${owner}${resource.canonical || owner !== '' ? '' : ', whatever owns them'}`;
    case 'create':
      return `Create ${withArticle(noun)}${owner}`;
    case 'read':
      return resource.kind === 'reference' ? `Read the ${noun}${owner}` : `Read ${withArticle(noun)}`;
    case 'replace':
      return `Replace ${withArticle(noun)} as a whole`;
    case 'change':
      return `Change parts of ${withArticle(noun)}`;
    case 'remove':
      return `Remove ${withArticle(noun)}`;
    case 'attach':
      return `Pair ${withArticle(noun)} with ${pairedWith(deriving, resource)}`;
    case 'detach':
      return `End the pair of ${withArticle(noun)} with ${pairedWith(deriving, resource)}`;
    case 'transition':
      return `${capital(phrase(transitionName(deriving, resource)))} ${withArticle(noun)}`;
  }
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function pairedWith(deriving: Deriving, resource: Placed): string {
  const pairs = deriving.index.relationshipById.get(resource.via?.relationship ?? '');
  if (pairs === undefined) return 'another';
  const back = resource.via?.direction === 'paired-back';
  const noun = phrase(back ? pairs.to : pairs.from);
  return `${withArticle(noun)}, as its ${phrase(singular(back ? (pairs.back ?? pairs.from) : roleOf(pairs)))}`;
}

function below(deriving: Deriving, resource: Placed): string {
  const { via } = resource;
  if (via === null) return '';
  if (via.direction === 'paired' || via.direction === 'paired-back') {
    const pairs = deriving.index.relationshipById.get(via.relationship);
    const other = pairs === undefined ? 'one' : phrase(via.direction === 'paired' ? pairs.from : pairs.to);
    return ` that ${withArticle(other)} is paired with`;
  }
  if (via.direction === 'referred') {
    const refers = deriving.index.relationshipById.get(via.relationship);
    return refers === undefined
      ? ''
      : ` that ${withArticle(phrase(refers.from))} has as its ${phrase(roleOf(refers))}`;
  }
  if (via.direction === 'referrers') {
    const refers = deriving.index.relationshipById.get(via.relationship);
    return refers === undefined
      ? ''
      : ` that have ${withArticle(phrase(refers.to))} as ${phrase(refers.role ?? refers.to)}`;
  }
  const owns = deriving.index.ownerOf.get(resource.entity ?? '');
  if (owns === undefined) return '';
  return ownsItself(owns) ? ` below another` : ` of ${withArticle(phrase(owns.from))}`;
}
