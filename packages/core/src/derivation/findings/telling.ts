import {
  admits,
  type Access,
  type LinkTarget,
  type Operation,
  type ReachedValue,
  type Resource,
} from '../../contract/index.js';
import {
  entryOf,
  partsOf,
  roleOfStep,
  rolesOfModel,
  type Aggregate,
  type Attribute,
  type Entity,
} from '../../model/index.js';
import { because, becauseSetAt, type DerivationContext } from '../context.js';
import { memberId, type Traits } from '../shapes/index.js';

/** The operations that read records of an entity, by its name. */
type Reading = Map<string, Operation[]>;

/** Reports computed members, aggregates and links that tell their readers of records which these may not read. */
export function findTelling(
  context: DerivationContext,
  traits: Traits,
  resources: readonly Resource[],
  operations: readonly Operation[],
): void {
  const entities = new Map(resources.map(({ id, entity }) => [id, entity]));
  const entityOf = (resource: string): string | null => entities.get(resource) ?? null;
  if (operations.every(({ access }) => access.kind === 'anonymous')) return;
  const reading: Reading = new Map();
  for (const operation of operations) {
    const entity = operation.method === 'GET' ? entityOf(operation.resource) : null;
    if (entity !== null && operation.custom?.kind !== 'aggregate')
      entryOf(reading, entity, () => []).push(operation);
  }
  findAggregates(context, operations, reading);
  findLinks(context, resources, reading);
  for (const entity of context.index.entities.values())
    for (const { name, computed, id } of entity.attributes) {
      if (computed === null || !isShown(traits, entity, id)) continue;
      for (const operation of reading.get(entity.name) ?? []) {
        const untold = readAlong(context, entity, computed).find(
          (other) => !mayRead(operation.access, reading.get(other)),
        );
        if (untold === undefined) continue;
        context.findings.push({
          id: 'computed.tells',
          severity: 'doubtful',
          message: `${name} of ${entity.name} tells whoever carries out ${operation.id} of records of ${untold}, which they may not read.`,
          about: id,
          reasons: [
            because('finding.tells', { id }),
            becauseSetAt(context, 'finding.tells', ['access', 'role'], operation),
          ],
        });
        break;
      }
    }
}

/** Reports aggregates that tell of records which whoever reads them may not read. */
function findAggregates(
  context: DerivationContext,
  operations: readonly Operation[],
  reading: Reading,
): void {
  for (const operation of operations) {
    const { custom, resource } = operation;
    if (custom?.kind !== 'aggregate') continue;
    if (mayRead(operation.access, reading.get(custom.entity))) continue;
    const about = resource.slice(0, -'/custom'.length);
    context.findings.push({
      id: 'computed.tells',
      severity: 'doubtful',
      message: `${operation.id} tells of records of ${custom.entity}, which whoever carries it out may not read.`,
      about,
      reasons: [becauseSetAt(context, 'finding.tells', ['access', 'role'], operation)],
    });
  }
}

/** Reports links that show what records have that whoever reads the links may not read. */
function findLinks(context: DerivationContext, resources: readonly Resource[], reading: Reading): void {
  for (const { entity, path, links } of resources)
    for (const { relation, target, reasons } of links) {
      const shown = reachedIn(context, entity ?? '', target);
      for (const operation of shown.length === 0 ? [] : (reading.get(entity ?? '') ?? [])) {
        const untold = shown.find((other) => !mayRead(operation.access, reading.get(other)));
        if (untold === undefined) continue;
        context.findings.push({
          id: 'computed.tells',
          severity: 'doubtful',
          message: `The link ${relation} of ${path} tells whoever carries out ${operation.id} of records of ${untold}, which they may not read.`,
          about: `${path} ${relation}`,
          reasons: [...reasons, becauseSetAt(context, 'finding.tells', ['access', 'role'], operation)],
        });
        break;
      }
    }
}

/** Names of the entities of which a link shows what their records have. */
function reachedIn({ model }: DerivationContext, entity: string, target: LinkTarget): readonly string[] {
  const known = rolesOfModel(model);
  return valuesIn(target).flatMap(({ along }) => {
    let at = entity;
    for (const step of along) at = roleOfStep(known.get(at), step)?.[1].to ?? '';
    return along.length === 0 || at === '' ? [] : [at];
  });
}

/** What a link shows of records. */
function valuesIn(target: LinkTarget): readonly ReachedValue[] {
  if (target.kind === 'address') return target.parts.filter((part) => typeof part !== 'string');
  if (target.kind !== 'operation') return [];
  const values = [...Object.values(target.ids), ...target.query.map(({ value }) => value)];
  return values.filter((value) => value.kind === 'field');
}

const isShown = (traits: Traits, { name }: Entity, id: string): boolean =>
  (traits.get(name) ?? []).some((trait) => memberId(trait) === id && trait.exposed.out !== 'no');

/** Whether whoever is let in by an access can read records somewhere; what nobody reads is told by nothing else. */
const mayRead = (access: Access, reads: readonly Operation[] | undefined): boolean =>
  reads === undefined || reads.some((read) => admits(access, read.access));

/** Names of the entities that an expression looks through, wherever it does. */
function readAlong(
  context: DerivationContext,
  entity: Entity,
  computed: NonNullable<Attribute['computed']>,
  seen: ReadonlySet<string> = new Set(),
): readonly string[] {
  return partsOf(computed).flatMap((part): readonly string[] => {
    if (part.kind === 'aggregate') return alongOf(context, entity, part);
    if (part.kind !== 'attribute' || seen.has(part.name)) return [];
    const inner = entity.attributes.find(({ name }) => name === part.name)?.computed ?? null;
    return inner === null ? [] : readAlong(context, entity, inner, new Set([...seen, part.name]));
  });
}

function alongOf({ model }: DerivationContext, entity: Entity, { roles }: Aggregate): readonly string[] {
  const known = rolesOfModel(model);
  const met: string[] = [];
  let at = entity.name;
  for (const role of roles) {
    at = known.get(at)?.get(role)?.to ?? '';
    if (at !== '') met.push(at);
  }
  return met;
}
