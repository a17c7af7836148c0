import { FILTER_OPERATORS, type FilterOperator } from '../arrangement/index.js';
import type { QueryParameter } from './operation.js';

export type FilterParameter = Extract<QueryParameter, { role: 'filter' }>;

/** What of a filter decides how it is written. */
type FilterName = Pick<FilterParameter, 'name' | 'spelling' | 'family'>;

/** A comparison as a query has it, decoded: a name, and what stands before the operand. */
export interface FilterTerm {
  readonly name: string;
  readonly before: string;
}

/** How a filter is written with one of its operators. */
export function filterTerm({ name, spelling, family }: FilterName, operator: FilterOperator): FilterTerm {
  const isEqual = operator === 'eq';
  switch (spelling) {
    case 'bracketed':
      return { name: isEqual ? name : `${name}[${operator}]`, before: '' };
    case 'suffixed':
      return { name: isEqual ? name : `${name}__${operator}`, before: '' };
    case 'family':
      return { name: `${family}[${name}]${isEqual ? '' : `[${operator}]`}`, before: '' };
    case 'in value':
      return { name, before: isEqual ? '' : `${operator}:` };
  }
}

/** What no other parameter of an operation is called: of a filter, the name by which equality is asked for. */
export const parameterKey = (parameter: QueryParameter): string =>
  parameter.role === 'filter' ? filterTerm(parameter, 'eq').name : parameter.name;

/**
 * The same as the beginning of a parameter in a URL. Brackets may not stand in a query as they are (RFC 3986 §3.4), and
 * shells take them for patterns.
 */
export function sentTerm(filter: FilterName, operator: FilterOperator): string {
  const { name, before } = filterTerm(filter, operator);
  return `${encodeURIComponent(name)}=${before}`;
}

/** `filter[distance][gte]`, `distance[gte]` and `distance__gte`: a name and an operator. */
const IN_FAMILY = /^([^[\]]+)\[([^[\]]+)\](?:\[([^[\]]*)\])?$/;
const IN_BRACKETS = /^([^[\]]+)\[([^[\]]*)\]$/;
const WITH_SUFFIX = /^(.+)__([^_]*)$/;

/** What a decoded name in a query can mean as a filter: its own name and an operator, one for each way to write it. */
export function filterNames(written: string): readonly (FilterName & { readonly operator: string })[] {
  const [, bracketed, operator] = IN_BRACKETS.exec(written) ?? [];
  const [, suffixed, suffix] = WITH_SUFFIX.exec(written) ?? [];
  const [, family, member, inside = 'eq'] = IN_FAMILY.exec(written) ?? [];
  return [
    ...(bracketed === undefined || operator === undefined
      ? []
      : [{ name: bracketed, spelling: 'bracketed', family: '', operator } as const]),
    ...(suffixed === undefined || suffix === undefined
      ? []
      : [{ name: suffixed, spelling: 'suffixed', family: '', operator: suffix } as const]),
    ...(family === undefined || member === undefined
      ? []
      : [{ name: member, spelling: 'family', family, operator: inside } as const]),
  ];
}

/** A value with its operator in front; any other text is compared for equality. */
export function operatorInValue(text: string): {
  readonly operator: FilterOperator;
  readonly length: number;
} {
  const operator = FILTER_OPERATORS.find((known) => text.startsWith(`${known}:`));
  return operator === undefined ? { operator: 'eq', length: 0 } : { operator, length: operator.length + 1 };
}

/** The value by which a filter finds what equals a text. */
export const equalTo = ({ spelling }: Pick<FilterParameter, 'spelling'>, text: string): string =>
  spelling === 'in value' && operatorInValue(text).length > 0 ? `eq:${text}` : text;
