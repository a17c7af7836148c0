import {
  arrangementOf,
  FIXED_OPERATORS,
  NO_CHOICES,
  plainArrangement,
  withEdit,
  type Arrangement,
  type BoundFilter,
  type Choices,
  type LinkOperand,
  type OwnLink,
  type OwnLinkTarget,
  type ReachedMember,
  type SettingValues,
} from '@isomeros/core/arrangement';
import { derive, readLinkLine } from '@isomeros/core/derivation';
import type { Contract } from '@isomeros/core/contract';
import { rolesOfModel, type Entity, type Model } from '@isomeros/core/model';
import fc from 'fast-check';

/** Links as lines, each at a resource by its path under the root, or `entry`. */
export type Lines = readonly (readonly [path: string, line: string])[];

export const resourceAt = (contract: Contract, path: string): string => {
  const found = contract.resources.find((resource) => resource.path === path);
  if (found === undefined) throw new Error(`There is no ${path}.`);
  return found.id;
};

/** The choices of an arrangement with links of its own, read from lines. */
export function withLines(model: Model, lines: Lines, settings: SettingValues = {}): Choices {
  let choices: Choices = { ...NO_CHOICES, arrangements: [{ ...plainArrangement('main'), settings }] };
  const contract = derive(model, arrangementOf('main', choices));
  for (const [at, [path, line]] of lines.entries()) {
    const resource = resourceAt(contract, path);
    const read = readLinkLine(model, contract, resource, line);
    if (!read.ok) throw new Error(`${line}: ${read.message} (column ${read.column})`);
    const link: OwnLink = { id: `own-${at}`, resource, ...read.link };
    choices = withEdit(choices, 'main', 'ownLinks', { id: link.id, link });
  }
  return choices;
}

export const linkedBy = (model: Model, lines: Lines, settings: SettingValues = {}): Arrangement =>
  arrangementOf('main', withLines(model, lines, settings));

interface DrawnLink {
  readonly pick: number;
  readonly at: number;
  readonly relation: string;
  readonly kind: OwnLinkTarget['kind'];
  readonly members: readonly number[];
  readonly isMember: boolean;
  readonly operator: BoundFilter['operator'];
  readonly size: number | null;
}

const COMPARED = FIXED_OPERATORS.filter(
  (operator): operator is BoundFilter['operator'] => operator !== 'unset',
);

/** Links of one's own as numbers, which `drawnLinks` makes links of a contract from. */
export const anyOwnLinks: fc.Arbitrary<readonly DrawnLink[]> = fc.array(
  fc.record({
    pick: fc.nat(),
    at: fc.nat(),
    relation: fc.constantFrom('alternate', 'mine', 'up', 'other.one'),
    kind: fc.constantFrom('operation', 'operation', 'record', 'address'),
    members: fc.array(fc.nat(), { minLength: 1, maxLength: 2 }),
    isMember: fc.boolean(),
    operator: fc.constantFrom(...COMPARED),
    size: fc.option(fc.integer({ min: 1, max: 30 })),
  }),
  { maxLength: 4 },
);

/** Links of one's own, most of them such as fit. */
export function drawnLinks(
  model: Model,
  { resources, operations }: Contract,
  drawn: readonly DrawnLink[],
): readonly OwnLink[] {
  const entities = new Map(
    model.declarations.flatMap((one) => (one.kind === 'entity' ? [[one.name, one] as const] : [])),
  );
  const carriers = resources.filter(({ kind, canonical }) =>
    kind === 'item' || kind === 'singleton' ? canonical : kind === 'entry' || kind === 'collection',
  );
  return drawn.flatMap((one, index): OwnLink[] => {
    const carrier = carriers[one.pick % carriers.length];
    if (carrier === undefined) return [];
    const isRecord = carrier.kind === 'item' || carrier.kind === 'singleton';
    const from = isRecord ? entities.get(carrier.entity ?? '') : undefined;
    const target = targetOf();
    return target === null
      ? []
      : [{ id: `own-${index}`, resource: carrier.id, relation: one.relation, target, when: [] }];

    function memberOf(entity: Entity | undefined, at: number): ReachedMember | null {
      const found = entity?.attributes[at % entity.attributes.length];
      return found === undefined ? null : { kind: 'member', along: [], member: found.id };
    }

    function targetOf(): OwnLinkTarget | null {
      const [first = 0, second = 0] = one.members;
      switch (one.kind) {
        case 'record': {
          const roles = [
            ...(rolesOfModel(model)
              .get(from?.name ?? '')
              ?.values() ?? []),
          ];
          const step = roles[first % roles.length];
          if (step === undefined) return null;
          return {
            kind: 'record',
            along: [{ relationship: step.relationship.id, direction: step.direction }],
          };
        }
        case 'address': {
          const text = { kind: 'text', text: 'https://docs.example/a/' } as const;
          const member = memberOf(from, first);
          return { kind: 'address', parts: member === null ? [text] : [text, member] };
        }
        case 'operation': {
          const operation = operations[one.at % operations.length];
          if (operation === undefined) return null;
          const { resource, verb } = operation;
          const listed = entities.get(resources.find(({ id }) => id === resource)?.entity ?? '');
          const attribute = listed?.attributes[second % listed.attributes.length];
          const isFiltered = verb === 'list' && attribute !== undefined && !one.isMember;
          const value: LinkOperand =
            attribute?.type.kind === 'instant' || attribute?.type.kind === 'date'
              ? { kind: 'now' }
              : { kind: 'literal', value: attribute?.type.kind === 'integer' ? 3 : 'a' };
          return {
            kind: 'operation',
            resource,
            verb,
            bound: [],
            filters: isFiltered ? [{ member: attribute.id, operator: one.operator, value }] : [],
            order:
              isFiltered && one.size !== null
                ? [{ member: attribute.id, descending: one.pick % 2 === 0 }]
                : [],
            size: verb === 'list' && one.isMember ? one.size : null,
          };
        }
      }
    }
  });
}
