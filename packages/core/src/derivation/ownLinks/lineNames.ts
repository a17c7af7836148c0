import { nameableMembers } from '../../arrangement/index.js';
import { indexContract, isHome, type Contract, type Operation, type Resource } from '../../contract/index.js';
import {
  indexModel,
  keyOf,
  ownerRoleOf,
  rolesOfModel,
  type Along,
  type Entity,
  type Model,
  type ModelIndex,
} from '../../model/index.js';

/** What a line about a link can name: where it is offered, and what the contract and the model have. */
export interface LineNames {
  readonly index: ModelIndex;
  readonly contract: Contract;
  /** The entity whose records offer the link; `null` where an answer does itself. */
  readonly from: Entity | null;
  readonly roles: (entity: string) => ReadonlyMap<string, Along>;
  readonly operation: (id: string) => Operation | undefined;
  readonly entityOf: (operation: Operation) => Entity | undefined;
}

const NO_ROLES: ReadonlyMap<string, Along> = new Map();

export function lineNames(model: Model, contract: Contract, resource: string): LineNames {
  const index = indexModel(model);
  const { resources, operations } = indexContract(contract);
  const carrier = resources.get(resource);
  const from =
    carrier !== undefined && isHome(carrier) ? index.entities.get(carrier.entity ?? '') : undefined;
  const roles = rolesOfModel(model);
  return {
    index,
    contract,
    from: from ?? null,
    roles: (entity) => roles.get(entity) ?? NO_ROLES,
    operation: (id) => operations.get(id),
    entityOf: (operation) => index.entities.get(resources.get(operation.resource)?.entity ?? ''),
  };
}

/** What a link can take of a record, or a list be narrowed and sorted by: its members, and its owner. */
export function linkableMembers(
  index: ModelIndex,
  entity: Entity,
): readonly { readonly id: string; readonly name: string }[] {
  const owns = index.ownerOf.get(entity.name);
  const owner = owns === undefined ? undefined : index.entities.get(owns.from);
  const members = nameableMembers(index, entity);
  if (owns === undefined || owner === undefined || keyOf(owner).attribute.key?.within != null) return members;
  const role = ownerRoleOf(owns);
  return members.some(({ name }) => name === role) ? members : [...members, { id: owns.id, name: role }];
}

/** What can be bound of an operation: ids in its path, by the identity of an entity, and inputs by their names. */
export function boundable(
  { index, contract }: LineNames,
  operation: Operation,
): readonly { readonly parameter: string; readonly name: string }[] {
  const resource: Resource | undefined = indexContract(contract).resources.get(operation.resource);
  const ids = (resource?.segments ?? []).flatMap((segment) => {
    const entity = segment.kind === 'id' ? index.entities.get(segment.entity) : undefined;
    return segment.kind === 'id' && entity !== undefined
      ? [{ parameter: entity.id, name: segment.parameter }]
      : [];
  });
  const inputs = operation.query.flatMap(({ role, name }) =>
    role === 'input' ? [{ parameter: name, name }] : [],
  );
  return [...ids, ...inputs];
}
