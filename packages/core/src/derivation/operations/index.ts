import {
  EFFECTS,
  isHome,
  looksThroughList,
  METHODS,
  type Operation,
  type OutlineOperation,
  type PageForm,
  type QueryParameter,
  type Verb,
} from '../../contract/index.js';
import type { Entity, PairsWith } from '../../model/index.js';
import { entityNamed, valueOf, type DerivationContext } from '../context.js';
import { customOf, fixedOf, type ResolvedCustom } from '../customOperations/index.js';
import { answerOf, type SuccessAnswer } from './answers.js';
import type { PlacedResource } from '../place/index.js';
import {
  customAnswer,
  inputShapeName,
  ENTRY_SHAPE,
  fixedShapeName,
  inlineOwned,
  isUncreatable,
  moveShape,
  pairShapeName,
  reportUncreatable,
  shapeName,
  takesBody,
  type PairSide,
  type Traits,
} from '../shapes/index.js';
import { accessOf } from './access.js';
import { carriedBy } from './carried.js';
import { OperationNames } from './names.js';
import { isOptionalSlot, isUncreatableAt, type Offers } from './offers.js';
import { operationReasons } from './operationReasons.js';
import { protocolOf } from './protocol.js';
import { formOf, inForm } from './forms.js';
import { withoutCollisions, listPolicy, recordParameters, type ListPolicy } from './query.js';
import { summaryOf } from './summary.js';
import { deriveResponses } from './responses.js';
import { creatingAmong, putCreates, type Creating } from './putCreates.js';
import type { Situation } from './situation.js';
import { restrictedEntities } from './restricted.js';

export const JSON_TYPE = 'application/json';
export const MERGE_PATCH_TYPE = 'application/merge-patch+json';
export const JSON_PATCH_TYPE = 'application/json-patch+json';

const PATCH_TYPES = [MERGE_PATCH_TYPE, JSON_PATCH_TYPE];
const JSON_ALONE = [JSON_TYPE];
const JSON_AND_HAL = [JSON_TYPE, 'application/hal+json'];

/** What each resource can do, in the order of the path tree. */
export function deriveOperations(
  context: DerivationContext,
  offers: Offers,
  traits: Traits,
): readonly Operation[] {
  const { resources } = offers;
  for (const { kind, canonical, entity } of resources)
    if (kind === 'collection' && canonical && entity !== null) {
      const found = entityNamed(context, entity);
      if (isUncreatable(context, found)) reportUncreatable(context, found);
    }
  const among: Among = {
    offers,
    names: new OperationNames(context, offers),
    restricted: restrictedEntities(context),
    creating: creatingAmong(offers),
    homes: new Map(resources.filter(isHome).map(({ entity, id }) => [entity ?? '', id])),
  };
  return resources.flatMap((resource) =>
    offers.offered(resource.id).map((verb) => deriveOperation(context, resource, verb, traits, among)),
  );
}

/** What operations have to know of each other. */
interface Among {
  readonly offers: Offers;
  /** Where records of an entity have their one address, by its name. */
  readonly homes: ReadonlyMap<string, string>;
  readonly names: OperationNames;
  /** Names of entities whose removal may be refused. */
  readonly restricted: ReadonlySet<string>;
  readonly creating: Creating;
}

/** The same operations with nothing but what they are called and do. */
export function outlineOperations(context: DerivationContext, offers: Offers): readonly OutlineOperation[] {
  const names = new OperationNames(context, offers);
  return offers.resources.flatMap((resource) =>
    offers.offered(resource.id).map((verb) => {
      const method = METHODS[verb];
      const { id } = names.name(verb, method, resource);
      return { id, verb, method, resource: resource.id, effect: EFFECTS[method] };
    }),
  );
}

function deriveOperation(
  context: DerivationContext,
  resource: PlacedResource,
  verb: Verb,
  traits: Traits,
  among: Among,
): Operation {
  const method = METHODS[verb];
  const entity = resource.entity === null ? null : entityNamed(context, resource.entity);
  const { id, by } = among.names.name(verb, method, resource);
  const paging = verb === 'list' ? formOf(context, resource) : null;
  const carrying = carriedBy(context, resource);
  const at = { resource: resource.id, verb };
  const own = customOf(context, resource);
  const fixed = fixedOf(context, resource);
  const acceptedTypes = typesOf(context, verb, carrying, resource, own);
  const written = writtenBy(context, own) ?? entity;
  const isAddressed = among.offers.isReadable(verb === 'attach' ? resource.id : homeOf(among, written));
  const answer = answerOf(context, at, own, isAddressed);
  const returns = returnedShape(context, verb, entity, carrying, resource, answer, paging);
  const access = accessOf(context, at, own);
  const protocol = protocolOf(context, at, verb, method, returns, own);
  const making = makingOf(context, resource, verb, entity, among.creating);
  return {
    id,
    verb,
    method,
    resource: resource.id,
    effect: EFFECTS[method],
    summary: summaryOf(context, verb, resource, entity),
    ...NOTHING_SAID,
    ...askedFor(context, resource, verb, entity, traits),
    paging,
    unknownParameters: valueOf(context, 'unknownParameters', at),
    access,
    ...protocol,
    acceptedTypes,
    accepts: acceptedTypes.length === 0 ? null : acceptedShape(context, verb, carrying, resource, own),
    returns,
    custom: (own ?? fixed)?.custom ?? null,
    responses: deriveResponses(context, {
      verb,
      resource,
      entity,
      written,
      answer,
      isAddressed,
      hasBody: acceptedTypes.length > 0,
      access,
      protocol,
      ...making,
      carries: carrying !== null,
      canMove: canMove(verb, resource, traits),
      own,
      fixed,
      ...holdingOf(context, entity, among),
    }),
    reasons: operationReasons(context, verb, resource, entity, by, making.fillsSlot || making.createsItem),
  };
}

/** The entity whose records an operation of one's own makes; `null` where they are those of its path. */
const writtenBy = (context: DerivationContext, own: ResolvedCustom | null): Entity | null =>
  own?.custom.kind === 'create' ? entityNamed(context, own.custom.entity) : null;

/** What stands inside a record, or needs it. */
const holdingOf = (
  context: DerivationContext,
  entity: Entity | null,
  { restricted }: Among,
): Pick<Situation, 'holdsOthers' | 'removalCanBeRefused'> => ({
  holdsOthers: entity !== null && inlineOwned(context, entity.name).length > 0,
  removalCanBeRefused: entity !== null && restricted.has(entity.name),
});

/** Where records of an entity have their one address; nowhere where they have none. */
const homeOf = ({ homes }: Among, entity: Entity | null): string => homes.get(entity?.name ?? '') ?? '';

/** Whether a PUT makes what it is sent to, and whether that may be missing. */
function makingOf(
  context: DerivationContext,
  resource: PlacedResource,
  verb: Verb,
  entity: Entity | null,
  creating: Creating,
): Pick<Situation, 'optionalSlot' | 'fillsSlot' | 'createsItem'> {
  const optionalSlot = isOptionalSlot(context, resource);
  return {
    optionalSlot,
    fillsSlot: optionalSlot && !isUncreatableAt(context, resource),
    createsItem: verb === 'replace' && putCreates(context, resource, entity, creating),
  };
}

/** Whether a body can move an attribute along its life cycle. */
const canMove = (verb: Verb, { kind, entity }: PlacedResource, traits: Traits): boolean =>
  (verb === 'replace' || verb === 'change') &&
  kind !== 'pair' &&
  (traits.get(entity ?? '') ?? []).some(({ transitions }) => transitions.length > 0);

/** What is said of operations comes once they are all there. */
const NOTHING_SAID = { documentation: null, tags: [] };

const NOTHING_ASKED: ListPolicy = { query: [], order: [] };

/** What the query of an operation may ask for. */
function askedFor(
  context: DerivationContext,
  resource: PlacedResource,
  verb: Verb,
  entity: Entity | null,
  traits: Traits,
): ListPolicy {
  if (entity === null) return NOTHING_ASKED;
  const asked = (): readonly QueryParameter[] =>
    recordParameters(context, resource, entity, traits.get(entity.name) ?? []);
  const own = customOf(context, resource);
  if (own !== null) {
    const inAddress = verb === 'custom' ? [] : own.asked;
    const query = looksThroughList(own.custom) ? [...inAddress, ...asked()] : inAddress;
    return { query: withoutCollisions(context, resource, query), order: own.order };
  }
  if (verb === 'list') return listPolicy(context, resource, entity, traits);
  if (verb !== 'read') return NOTHING_ASKED;
  return { query: withoutCollisions(context, resource, asked()), order: [] };
}

/** What was read as HAL can be sent back so. */
const bodyTypes = (context: DerivationContext): readonly string[] =>
  valueOf(context, 'mediaTypes').includes('hal') ? JSON_AND_HAL : JSON_ALONE;

function typesOf(
  context: DerivationContext,
  verb: Verb,
  carrying: PairsWith | null,
  resource: PlacedResource,
  own: ResolvedCustom | null,
): readonly string[] {
  if (own !== null && (takesBody(own) || (verb === 'custom' && own.asked.length > 0)))
    return bodyTypes(context);
  switch (verb) {
    case 'create':
    case 'replace':
      return bodyTypes(context);
    case 'change':
      return valueOf(context, 'plainPatch') === 'refused'
        ? PATCH_TYPES
        : [...PATCH_TYPES, ...bodyTypes(context)];
    case 'attach':
      return carrying === null ? [] : bodyTypes(context);
    case 'transition':
      return moveShape(context, resource) === null ? [] : bodyTypes(context);
    case 'entry':
    case 'list':
    case 'read':
    case 'remove':
    case 'detach':
    case 'custom':
      return [];
  }
}

function acceptedShape(
  context: DerivationContext,
  verb: Verb,
  carrying: PairsWith | null,
  resource: PlacedResource,
  own: ResolvedCustom | null,
): string | null {
  const { entity } = resource;
  if (entity === null) return null;
  if (own !== null) return inputShapeName(own);
  if (verb === 'attach') return carrying?.carrying ?? null;
  if (verb === 'transition') return moveShape(context, resource)?.name ?? null;
  if (verb === 'change' && carrying !== null) return pairShapeName(carrying, 'change', sideOf(resource));
  return verb === 'create' || verb === 'replace' || verb === 'change' ? shapeName(entity, verb) : null;
}

function returnedShape(
  context: DerivationContext,
  verb: Verb,
  entity: Entity | null,
  carrying: PairsWith | null,
  resource: PlacedResource,
  answer: SuccessAnswer,
  paging: PageForm | null,
): string | null {
  if (entity === null) {
    const fixed = fixedOf(context, resource);
    return fixed === null ? ENTRY_SHAPE : fixedShapeName(fixed);
  }
  const own = customOf(context, resource);
  if (verb === 'detach' || answer !== 'record') return null;
  if (own !== null) return customAnswer(own);
  const purpose = verb === 'list' ? 'page' : 'item';
  const name =
    carrying === null ? shapeName(entity.name, purpose) : pairShapeName(carrying, purpose, sideOf(resource));
  return paging === null ? name : inForm(name, paging);
}

/** From which side of a pairing a resource looks at it. */
const sideOf = ({ via }: PlacedResource): PairSide => (via?.direction === 'paired-back' ? 'far' : 'near');
