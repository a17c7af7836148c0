import { indexModel, type Model, type ModelIndex } from '../model/index.js';
import type {
  AssignedMember,
  ChosenOption,
  CustomEffect,
  FixedFilter,
  Input,
  ManyEffect,
  Operand,
  OwnComparison,
  QueryTerms,
} from './customOperations.js';
import { AS_FILTER, namesOf, relatedByRole, transitionsOf, type NameOf } from './effectNames.js';
import { printAggregate } from './aggregateText.js';
import { printFixed } from './fixedText.js';
import { printAccepted, printInputRules, printOperand } from './inputText.js';
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
    case 'aggregate': {
      const { text, entity: last } = printAggregate(index, effect, entity ?? '');
      return [text, ...foundText(namesOf(index, last), { filters: effect.filters, order: [] })].join(' ');
    }
    case 'many':
      return manyText(index, own, entity, effect);
    case 'verify':
      return [printVerify(effect, own), ...printAccepted(effect.accepts, own)].join(' ');
    case 'accept': {
      const what = `accepts ${printInputRules(effect, own)}`;
      const { transition } = effect;
      return transition === null ? what : `${what} for ${transitionName(index, entity, transition)}`;
    }
    case 'revoke':
      return 'revoke token';
    case 'caller':
      return 'caller';
    case 'fixed':
      return `answers ${printFixed(effect.body)}`;
    case 'assign':
      return [
        ...printWhen(own, effect.when),
        `set ${valuesText(own, effect.values)}`,
        ...printAccepted(effect.accepts, own),
      ].join(' ');
    case 'create': {
      const related = relatedByRole(index, entity ?? '').find(
        (one) => one.relationship === effect.relationship,
      );
      const made = namesOf(index, related?.made ?? '');
      return [
        `make ${related?.role ?? effect.relationship}`,
        ...printWhen(own, effect.when),
        ...(effect.values.length === 0 ? [] : [`set ${valuesText(made, effect.values)}`]),
        ...printAccepted(effect.accepts, made),
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

function manyText(
  index: ModelIndex,
  own: NameOf,
  entity: string | null,
  { over, does, accepts }: ManyEffect,
): string {
  const those =
    over.kind === 'ids' ? ['ids'] : ['all', ...foundText(own, { filters: over.filters, order: [] })];
  const done =
    does.kind === 'assign'
      ? [...printWhen(own, does.when), `set ${valuesText(own, does.values)}`]
      : [`do ${transitionName(index, entity, does.transition)}`];
  return [...those, ...done, ...printAccepted(accepts, own)].join(' ');
}

function transitionName(index: ModelIndex, entity: string | null, transition: string): string {
  const found = index.entities.get(entity ?? '');
  const named = found === undefined ? [] : transitionsOf(found);
  return named.find(({ id }) => id === transition)?.name ?? transition;
}

const operandText = (value: Operand | Input): string =>
  value.kind === 'input'
    ? `input ${value.name}${value.default === undefined ? '' : ` default ${printOperand(value.default)}`}`
    : printOperand(value);

const OPERATOR_OF = new Map(Object.entries(AS_FILTER).map(([written, operator]) => [operator, written]));

function filterText(own: NameOf, { member, operator, value }: FixedFilter): string {
  if (operator === 'unset')
    return `${own(member)} is ${value.kind === 'literal' && value.value === false ? 'set' : 'unset'}`;
  return `${own(member)} ${OPERATOR_OF.get(operator) ?? '='} ${operandText(value)}`;
}

/** The condition that `readWhen` reads; nothing where nothing is asked for. */
export const printWhen = (own: NameOf, when: readonly OwnComparison[]): readonly string[] =>
  when.length === 0
    ? []
    : [
        `when ${when.map(({ member, operator, value }) => `${own(member)} ${operator} ${operandText(value)}`).join(' and ')}`,
      ];

const optionText = ({ option, value }: ChosenOption): string =>
  `${option} ${value.kind === 'unset' ? 'unset' : printOperand(value)}`;

const valuesText = (own: NameOf, values: readonly AssignedMember[]): string =>
  values
    .map(({ member, value }) => {
      switch (value.kind) {
        case 'input':
          return `${own(member)} from body`;
        case 'unset':
          return `${own(member)} unset`;
        case 'chosen':
          return `${own(member)} = input ${value.input} (${value.options.map(optionText).join(', ')})`;
        case 'now':
        case 'literal':
          return `${own(member)} = ${operandText(value)}`;
      }
    })
    .join(', ');
