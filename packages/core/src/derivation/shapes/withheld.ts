import { exposureChoice } from '../../arrangement/index.js';
import type { Mend } from '../../contract/index.js';
import { recordAttributes, type Entity } from '../../model/index.js';
import { because, entityNamed, valueOf, type Deriving } from '../context.js';
import { memberName, structureNames } from '../names/members.js';
import { standingsOf } from '../place/index.js';

const known = new WeakMap<Deriving, Map<string, boolean>>();

/**
 * Whether no record of an entity can be made: something required is neither accepted nor supplied, in it or in
 * what is made together with it.
 */
export function isCreateWithheld(deriving: Deriving, entity: Entity): boolean {
  const settled = known.get(deriving) ?? new Map<string, boolean>();
  known.set(deriving, settled);
  const waiting: Entity[] = [entity];
  const made = new Set<string>();
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (made.has(next.name)) continue;
    made.add(next.name);
    const withheld =
      settled.get(next.name) ?? (withheldMembers(deriving, next).length > 0 || isLeftOut(deriving, next));
    settled.set(next.name, withheld);
    if (withheld) return true;
    for (const owns of deriving.index.ownedBy.get(next.name) ?? [])
      if (owns.cardinality === 'one') waiting.push(entityNamed(deriving, owns.to));
  }
  return false;
}

interface Needed {
  readonly id: string;
  readonly name: string;
}

/** What is required, and must be sent. */
function neededMembers(deriving: Deriving, entity: Entity): readonly Needed[] {
  const owner = deriving.index.ownerOf.get(entity.name);
  const isNamed = owner !== undefined && standingsOf(deriving).owned.get(owner.id) === 'flat';
  const attributes = recordAttributes(deriving.index, entity).filter(
    ({ required, defaultValue, generated, touched, readOnly, lifeCycle, key }) =>
      required &&
      defaultValue === null &&
      !generated &&
      !touched &&
      !readOnly &&
      lifeCycle === null &&
      key === null,
  );
  const references = (deriving.index.refersFrom.get(entity.name) ?? []).filter(
    ({ cardinality }) => cardinality === 'one',
  );
  return [
    ...attributes.map(({ id, name }) => ({ id, name: memberName(deriving, name) })),
    ...references.map(({ id }) => ({ id, name: '' })),
    ...(isNamed ? [{ id: owner.id, name: '' }] : []),
  ];
}

/** What is required, must be sent, and was chosen not to be accepted; by its identity. */
function withheldMembers(deriving: Deriving, entity: Entity): readonly string[] {
  const { exposures } = deriving.arrangement;
  if (Object.keys(exposures).length === 0) return [];
  return neededMembers(deriving, entity)
    .filter(({ id }) => exposureChoice(exposures, entity.id, id).create === 'no')
    .map(({ id }) => id);
}

/** Whether something that must be sent has a name that another member has already, so that it is left out. */
export function isLeftOut(deriving: Deriving, entity: Entity): boolean {
  const { links } = structureNames(deriving);
  const needed = neededMembers(deriving, entity).filter(({ name }) => name !== '');
  if (needed.some(({ name }) => name === links)) return true;
  if (valueOf(deriving, 'memberCase') === 'camel') return false;
  const names = recordAttributes(deriving.index, entity).map(({ name }) => memberName(deriving, name));
  return (
    new Set(names).size < names.length &&
    needed.some(({ name }) => names.indexOf(name) !== names.lastIndexOf(name))
  );
}

/** Reports collections that offer no create. */
export function reportWithheld(deriving: Deriving, entity: Entity): void {
  const members = withheldMembers(deriving, entity);
  deriving.findings.push({
    id: 'create.withheld',
    severity: 'doubtful',
    message: `No ${entity.name} can be created: something it requires is not accepted.`,
    about: entity.id,
    reasons: [because('finding.withheld', entity)],
    mends: members.map((of): Mend => ({
      title: 'Accept it again',
      act: { kind: 'exposure', entity: entity.id, of, aspect: 'create' },
    })),
  });
}
