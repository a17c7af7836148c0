import { indexModel, type Model, type ModelIndex } from '../model/index.js';
import { writeOperand } from '../notation/index.js';
import type {
  AssignedMember,
  CustomEffect,
  FixedFilter,
  Input,
  ManyEffect,
  Operand,
  OwnComparison,
  QueryTerms,
} from './customOperations.js';
import { AS_FILTER, namesOf, relatedByRole, transitionsOf, type NameOf } from './effectNames.js';
import { printFixed } from './fixedText.js';
import { printVerify } from './verifyText.js';

/** The line that `readEffect` reads as the effect. Names that are gone are written as their identities. */
export function printEffect(model: Model, entity: string | null, effect: CustomEffect): string {
  const index = indexModel(model);
  const own = namesOf(index, entity);
  switch (effect.kind) {
    case 'query':
      return [`first ${effect.limit}`, ...foundText(own, effect)].join(' ');
    case 'find':
      return ['one', ...foundText(own, effect)].join(' ');
    case 'many':
      return manyText(index, own, entity, effect);
    case 'verify':
      return printVerify(effect, own);
    case 'revoke':
      return 'revoke token';
    case 'caller':
      return 'caller';
    case 'fixed':
      return `answers ${printFixed(effect.body)}`;
    case 'assign':
      return [...whenText(own, effect.when), `set ${valuesText(own, effect.values)}`].join(' ');
    case 'create': {
      const related = relatedByRole(index, entity ?? '').find(
        (one) => one.relationship === effect.relationship,
      );
      const made = namesOf(index, related?.made ?? '');
      return [
        `make ${related?.role ?? effect.relationship}`,
        ...whenText(own, effect.when),
        ...(effect.values.length === 0 ? [] : [`set ${valuesText(made, effect.values)}`]),
      ].join(' ');
    }
  }
}

function foundText(own: NameOf, { filters, order }: QueryTerms): readonly string[] {
  const wanted = filters.map((filter) => filterText(own, filter)).join(' and ');
  const keys = order.map(({ member, descending }) => `${own(member)}${descending ? ' desc' : ''}`);
  return [
    ...(wanted === '' ? [] : [`where ${wanted}`]),
    ...(keys.length === 0 ? [] : [`by ${keys.join(', ')}`]),
  ];
}

function manyText(index: ModelIndex, own: NameOf, entity: string | null, { over, does }: ManyEffect): string {
  const those =
    over.kind === 'ids' ? ['ids'] : ['all', ...foundText(own, { filters: over.filters, order: [] })];
  if (does.kind === 'assign')
    return [...those, ...whenText(own, does.when), `set ${valuesText(own, does.values)}`].join(' ');
  const found = index.entities.get(entity ?? '');
  const named = found === undefined ? [] : transitionsOf(found);
  const name = named.find(({ id }) => id === does.transition)?.name ?? does.transition;
  return [...those, `do ${name}`].join(' ');
}

function operandText(value: Operand | Input): string {
  switch (value.kind) {
    case 'now':
      return 'now';
    case 'literal':
      return writeOperand(value.value);
    case 'input':
      return `input ${value.name}${value.default === undefined ? '' : ` default ${operandText(value.default)}`}`;
  }
}

const OPERATOR_OF = new Map(Object.entries(AS_FILTER).map(([written, operator]) => [operator, written]));

function filterText(own: NameOf, { member, operator, value }: FixedFilter): string {
  if (operator === 'unset')
    return `${own(member)} is ${value.kind === 'literal' && value.value === false ? 'set' : 'unset'}`;
  return `${own(member)} ${OPERATOR_OF.get(operator) ?? '='} ${operandText(value)}`;
}

const whenText = (own: NameOf, when: readonly OwnComparison[]): readonly string[] =>
  when.length === 0
    ? []
    : [
        `when ${when.map(({ member, operator, value }) => `${own(member)} ${operator} ${operandText(value)}`).join(' and ')}`,
      ];

const valuesText = (own: NameOf, values: readonly AssignedMember[]): string =>
  values
    .map(({ member, value }) => {
      switch (value.kind) {
        case 'input':
          return `${own(member)} from body`;
        case 'unset':
          return `${own(member)} unset`;
        case 'now':
        case 'literal':
          return `${own(member)} = ${operandText(value)}`;
      }
    })
    .join(', ');
