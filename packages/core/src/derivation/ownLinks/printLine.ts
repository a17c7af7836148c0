import {
  AS_FILTER,
  namesOf,
  printOperand,
  printWhen,
  type AddressPart,
  type LinkOperand,
  type OwnLinkTarget,
  type ReachedMember,
} from '../../arrangement/index.js';
import type { Contract } from '../../contract/index.js';
import { roleOfStep, type Model } from '../../model/index.js';
import { boundable, lineNames, linkableMembers, type LineNames } from './lineNames.js';
import type { LinkSaid } from './readLine.js';

/** The line that `readLinkLine` reads as the link. Names that are gone are written as their identities. */
export function printLinkLine(
  model: Model,
  contract: Contract,
  resource: string,
  { relation, target, when }: LinkSaid,
): string {
  const names = lineNames(model, contract, resource);
  const condition = printWhen(namesOf(names.index, names.from?.name ?? null), when);
  return [`${relation} -> ${targetText(names, target)}`, ...condition].join(' ');
}

const OPERATOR_OF = new Map<string, string>(
  Object.entries(AS_FILTER).map(([written, operator]) => [operator, written]),
);

function targetText(names: LineNames, target: OwnLinkTarget): string {
  switch (target.kind) {
    case 'operation':
      return operationText(names, target);
    case 'record':
      return pathText(names, target.along).text;
    case 'address':
      return JSON.stringify(target.parts.map((part) => partText(names, part)).join(''));
  }
}

const partText = (names: LineNames, part: AddressPart): string =>
  part.kind === 'text' ? part.text : `{${memberText(names, part)}}`;

/** Roles joined by dots, and the name of the entity that the last leads to. */
function pathText(
  { from, roles }: LineNames,
  along: ReachedMember['along'],
): { readonly text: string; readonly entity: string } {
  let entity = from?.name ?? '';
  const words = along.map((step) => {
    const found = roleOfStep(roles(entity), step);
    entity = found?.[1].to ?? '';
    return found?.[0] ?? step.relationship;
  });
  return { text: words.join('.'), entity };
}

function memberText(names: LineNames, { along, member }: ReachedMember): string {
  const { text, entity } = pathText(names, along);
  const name = memberName(names, entity, member);
  return text === '' ? name : `${text}.${name}`;
}

function memberName({ index }: LineNames, entity: string, member: string): string {
  const found = index.entities.get(entity);
  return found === undefined
    ? member
    : (linkableMembers(index, found).find(({ id }) => id === member)?.name ?? member);
}

const valueText = (names: LineNames, value: LinkOperand): string =>
  value.kind === 'member' ? `self.${memberText(names, value)}` : printOperand(value);

function operationText(
  names: LineNames,
  { resource, verb, bound, filters, order, size }: Extract<OwnLinkTarget, { kind: 'operation' }>,
): string {
  const operation = names.contract.operations.find((one) => one.resource === resource && one.verb === verb);
  const entity = (operation === undefined ? undefined : names.entityOf(operation))?.name ?? '';
  const parameters = operation === undefined ? [] : boundable(names, operation);
  const set = bound.map(({ parameter, value }) => {
    const name = parameters.find((one) => one.parameter === parameter)?.name ?? parameter;
    return `${name} = ${valueText(names, value)}`;
  });
  const wanted = filters.map(
    ({ member, operator, value }) =>
      `${memberName(names, entity, member)} ${OPERATOR_OF.get(operator) ?? '='} ${valueText(names, value)}`,
  );
  const keys = order.map(
    ({ member, descending }) => `${memberName(names, entity, member)}${descending ? ' desc' : ''}`,
  );
  const clauses = [
    ...(set.length === 0 ? [] : [`with ${set.join(' and ')}`]),
    ...(wanted.length === 0 ? [] : [`where ${wanted.join(' and ')}`]),
    ...(keys.length === 0 ? [] : [`sort ${keys.join(' then ')}`]),
    ...(size === null ? [] : [`size ${size}`]),
  ];
  const called = operation?.id ?? `${verb} ${resource}`;
  return clauses.length === 0 ? called : `${called} ${clauses.join(', ')}`;
}
