import type { Assumption, AssumptionOption } from '../../contract/index.js';
import {
  isSingleton,
  keyOf,
  ownerRoleOf,
  ownsItself,
  phrase,
  plural,
  type Attribute,
  type Entity,
} from '../../model/index.js';
import { because, type DerivationContext } from '../context.js';
import { reachabilityOf } from '../place/index.js';
import { isUncreatable } from '../shapes/index.js';

/** Entities of which a client can make the same record again and again, since nothing that it sends is unique. */
export const assumeTwice = (context: DerivationContext): readonly Assumption[] =>
  [...context.index.entities.values()]
    .filter((entity) => isMadeByClients(context, entity) && !isTold(context, entity))
    .flatMap((entity): readonly Assumption[] => {
      const unique = candidates(entity).map((one) => uniqueOption(context, entity, one));
      if (unique.length === 0) return [];
      return [
        {
          id: `twice:${entity.id}`,
          question: `Can there be two ${phrase(plural(entity.name))} that are the same?`,
          ground: 'Nothing that is sent to make one is unique.',
          options: [{ label: 'Yes', assumed: true, answer: { kind: 'accept' } }, ...unique],
          settled: false,
          reasons: [because('operation.create', entity)],
        },
      ];
    });

const isMadeByClients = (context: DerivationContext, entity: Entity): boolean =>
  reachabilityOf(context).of.get(entity.name) === 'exposed' &&
  !isSingleton(context.index, entity.name) &&
  entity.single !== true &&
  !isUncreatable(context, entity);

/** Whether something that clients send tells two records apart. */
function isTold({ index }: DerivationContext, entity: Entity): boolean {
  const { implicit, attribute: key } = keyOf(entity);
  return (
    (!implicit && key.key?.generated !== true) ||
    entity.uniques.length > 0 ||
    entity.attributes.some((one) => isSent(one) && (one.unique || one.uniqueWithin !== null)) ||
    (index.refersFrom.get(entity.name) ?? []).some(({ unique }) => unique)
  );
}

const isSent = ({ generated, touched, readOnly, key, computed }: Attribute): boolean =>
  !generated && !touched && !readOnly && key === null && computed === null;

const MOST_OFFERED = 2;

/** Names that mostly tell records apart, the best first. */
const TELLING = ['code', 'number', 'reference', 'slug', 'email', 'name', 'title', 'label'];
const COMPARED: ReadonlySet<string> = new Set(['text', 'email', 'uri', 'uuid', 'integer', 'date', 'instant']);

/** What might be unique: what must be sent and compares, first what is called so, then texts, then moments. */
const candidates = ({ attributes }: Entity): readonly Attribute[] =>
  attributes
    .filter((one) => isSent(one) && one.required && !one.writeOnly && COMPARED.has(one.type.kind))
    .map((one) => ({ one, rank: rankOf(one) }))
    .sort((a, b) => a.rank - b.rank)
    .slice(0, MOST_OFFERED)
    .map(({ one }) => one);

function rankOf({ name, type }: Attribute): number {
  const at = TELLING.findIndex((word) => name.toLowerCase().endsWith(word));
  if (at !== -1) return at;
  return TELLING.length + (type.kind === 'date' || type.kind === 'instant' ? 1 : 0);
}

function uniqueOption(
  { index }: DerivationContext,
  entity: Entity,
  { id, name }: Attribute,
): AssumptionOption {
  const owner = index.ownerOf.get(entity.name);
  const isWithin = owner !== undefined && !ownsItself(owner);
  const change = isWithin ? { uniqueWithin: ownerRoleOf(owner) } : { unique: true };
  return {
    label: isWithin
      ? `No, ${phrase(name)} is unique within its ${phrase(owner.from)}`
      : `No, ${phrase(name)} is unique`,
    assumed: false,
    answer: { kind: 'edit', edit: { kind: 'change-attribute', attribute: id, change } },
  };
}
