import type { Field, FilterParameter } from '../../contract/index.js';
import { ownerRoleOf, roleOf, type Entity } from '../../model/index.js';
import { becauseSetAt, type DerivationContext } from '../context.js';
import { memberName } from '../names/members.js';
import { reachabilityOf } from '../place/index.js';
import type { Paging } from './paging.js';

/** More filters through roles than these a list does not have: nobody would find one among them. */
export const MOST_THROUGH = 200;

/** A record that is reached by some roles, one after another. */
interface Reached {
  readonly entity: string;
  readonly names: readonly string[];
  readonly statements: readonly { readonly id: string }[];
  /** What is compared of the record that is filtered, from what is compared of this one. */
  readonly field: (of: Field) => Field;
}

/**
 * Filters by what the records point at: the roles that lead there and the member, joined by dots. The nearest come
 * first. `ofEntity`: the filters that lists of an entity have of their own.
 */
export function filtersThrough(
  context: DerivationContext,
  paging: Paging,
  entity: Entity,
  ofEntity: (name: string) => readonly FilterParameter[],
): readonly FilterParameter[] {
  const found: FilterParameter[] = [];
  let reached: readonly Reached[] = [{ entity: entity.name, names: [], statements: [], field: (of) => of }];
  for (let step = 1; step <= paging.steps; step++) {
    reached = reached.flatMap((from) => onwards(context, from));
    for (const { entity: to, names, statements, field } of reached) {
      if (found.length > MOST_THROUGH) return found;
      const settings = step === 1 ? THROUGH : THROUGH_SEVERAL;
      const reasons = [becauseSetAt(context, 'list.through', settings, paging.at, ...statements)];
      for (const filter of ofEntity(to))
        if (filter.field.kind === 'attribute')
          found.push({
            ...filter,
            name: [...names, filter.name].join('.'),
            field: field(filter.field),
            reasons,
          });
    }
  }
  return found;
}

const THROUGH = ['filterThrough'] as const;
const THROUGH_SEVERAL = ['filterThrough', 'filterSteps'] as const;

/** What is reached by one role more: owners, and what references point at. */
function onwards(context: DerivationContext, from: Reached): readonly Reached[] {
  const { index } = context;
  const owns = index.ownerOf.get(from.entity);
  const roles = [
    ...(owns === undefined ? [] : [{ statement: owns, role: ownerRoleOf(owns), to: owns.from }]),
    ...(index.refersFrom.get(from.entity) ?? []).map((refers) => ({
      statement: refers,
      role: roleOf(refers),
      to: refers.to,
    })),
  ];
  return roles.flatMap(({ statement, role, to }): readonly Reached[] => {
    if (reachabilityOf(context).of.get(to) !== 'exposed') return [];
    return [
      {
        entity: to,
        names: [...from.names, memberName(context, role)],
        statements: [...from.statements, statement],
        field: (of) => from.field({ kind: 'through', relationship: statement.id, entity: to, of }),
      },
    ];
  });
}
