import { exposureChoice } from '../../arrangement/index.js';
import type { QuickFix } from '../../contract/index.js';
import { memoize, recordAttributes, type Entity } from '../../model/index.js';
import { because, entityNamed, valueOf, type DerivationContext } from '../context.js';
import { attributeMember } from '../names/called.js';
import { structureNames } from '../names/members.js';
import { reachabilityOf } from '../place/reachability.js';

const known = memoize<DerivationContext, Map<string, boolean>>(() => new Map());

/**
 * Whether no record of an entity can be made: something required is neither accepted nor supplied, in it or in
 * what is made together with it.
 */
export function isUncreatable(context: DerivationContext, entity: Entity): boolean {
  const settled = known(context);
  const waiting: Entity[] = [entity];
  const made = new Set<string>();
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (made.has(next.name)) continue;
    made.add(next.name);
    const withheld =
      settled.get(next.name) ??
      (withheldMembers(context, next).length > 0 || isMissingFromCreate(context, next));
    settled.set(next.name, withheld);
    if (withheld) return true;
    for (const owns of context.index.ownedBy.get(next.name) ?? [])
      if (owns.cardinality === 'one') waiting.push(entityNamed(context, owns.to));
  }
  return false;
}

interface Needed {
  readonly id: string;
  readonly name: string;
}

/** What is required, and must be sent. */
function neededMembers(context: DerivationContext, entity: Entity): readonly Needed[] {
  const owner = context.index.ownerOf.get(entity.name);
  const isNamed = owner !== undefined && reachabilityOf(context).owned.get(owner.id) === 'flat';
  const attributes = recordAttributes(context.index, entity).filter(
    ({ required, defaultValue, generated, touched, readOnly, lifeCycle, key }) =>
      required &&
      defaultValue === null &&
      !generated &&
      !touched &&
      !readOnly &&
      lifeCycle === null &&
      key === null,
  );
  const references = (context.index.refersFrom.get(entity.name) ?? []).filter(
    ({ cardinality }) => cardinality === 'one',
  );
  return [
    ...attributes.map((attribute) => ({
      id: attribute.id,
      name: attributeMember(context, entity, attribute),
    })),
    ...references.map(({ id }) => ({ id, name: '' })),
    ...(isNamed ? [{ id: owner.id, name: '' }] : []),
  ];
}

/** What is required, must be sent, and was chosen not to be accepted; by its identity. */
function withheldMembers(context: DerivationContext, entity: Entity): readonly string[] {
  const { exposures } = context.arrangement;
  if (Object.keys(exposures).length === 0) return [];
  return neededMembers(context, entity)
    .filter(({ id }) => exposureChoice(exposures, entity.id, id).create === 'no')
    .map(({ id }) => id);
}

/** Whether something that must be sent has a name that another member has already, so that it is left out. */
export function isMissingFromCreate(context: DerivationContext, entity: Entity): boolean {
  const { links } = structureNames(context);
  const needed = neededMembers(context, entity).filter(({ name }) => name !== '');
  if (needed.some(({ name }) => name === links)) return true;
  if (valueOf(context, 'memberCase') === 'camel') return false;
  const names = recordAttributes(context.index, entity).map((attribute) =>
    attributeMember(context, entity, attribute),
  );
  return (
    new Set(names).size < names.length &&
    needed.some(({ name }) => names.indexOf(name) !== names.lastIndexOf(name))
  );
}

/** Reports collections that offer no create. */
export function reportUncreatable(context: DerivationContext, entity: Entity): void {
  const members = withheldMembers(context, entity);
  context.findings.push({
    id: 'create.withheld',
    severity: 'doubtful',
    message: `No ${entity.name} can be created: something it requires is not accepted.`,
    about: entity.id,
    reasons: [because('finding.withheld', entity)],
    quickFixes: members.map((of): QuickFix => ({
      title: 'Accept it again',
      answer: { kind: 'exposure', entity: entity.id, of, aspect: 'create' },
    })),
  });
}
