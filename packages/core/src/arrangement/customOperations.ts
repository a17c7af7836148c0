import type { CompareOperator, Literal } from '../model/index.js';
import type { FilterOperator } from './exposure.js';

/** An operation that no rule derives: what it does is one of a closed set of effects. */
export interface CustomOperation {
  /** Unique in its arrangement; outlives its name. */
  readonly id: string;
  /** In camelCase; the path word and the name of the operation come from it. */
  readonly name: string;
  /** The identity of the entity whose records it is about. */
  readonly entity: string;
  readonly effect: CustomEffect;
}

/** What is looked for, and in which order. */
export interface QueryTerms {
  readonly filters: readonly FixedFilter[];
  /** Members by their identity, the first deciding. */
  readonly order: readonly { readonly member: string; readonly descending: boolean }[];
}

interface ListEffect extends QueryTerms {
  readonly kind: 'query';
  readonly limit: number;
}

interface FindEffect extends QueryTerms {
  readonly kind: 'find';
}

export type CustomEffect =
  /** GET below the collection: the first of what is looked for. */
  | ListEffect
  /** GET below the collection: the first record that a query would list. */
  | FindEffect
  /** POST below the item: gives members values while every comparison holds. */
  | {
      readonly kind: 'assign';
      readonly when: readonly OwnComparison[];
      readonly values: readonly AssignedMember[];
    }
  /** POST below the item: makes a record that it owns, or that refers to it. */
  | {
      readonly kind: 'create';
      readonly when: readonly OwnComparison[];
      /** The identity of the ownership or of the reference. */
      readonly relationship: string;
      readonly values: readonly AssignedMember[];
    };

/** Something known from the start, or the moment of the request. */
export type Operand = { readonly kind: 'literal'; readonly value: Literal } | { readonly kind: 'now' };

/** Something the request sends: its name, and what it is where it is not sent. Without a default it must be. */
export interface Input {
  readonly kind: 'input';
  readonly name: string;
  readonly default?: Operand;
}

export interface FixedFilter {
  /** The identity of an attribute. */
  readonly member: string;
  readonly operator: Exclude<FilterOperator, 'in' | 'contains' | 'icontains' | 'starts'>;
  /** For `unset`: true or false. */
  readonly value: Operand | Input;
}

/** An attribute of the record, by its identity, against something known. */
export interface OwnComparison {
  readonly member: string;
  readonly operator: CompareOperator;
  readonly value: Operand;
}

export interface AssignedMember {
  /** The identity of an attribute or a reference. */
  readonly member: string;
  readonly value: Operand | { readonly kind: 'unset' } | { readonly kind: 'input' };
}

/** More of them an arrangement cannot have. */
export const MOST_CUSTOM_OPERATIONS = 500;
export const MOST_PARTS = 50;
export const MOST_QUERIED = 1_000;

export const FIXED_OPERATORS: readonly FixedFilter['operator'][] = [
  'eq',
  'ne',
  'lt',
  'lte',
  'gt',
  'gte',
  'unset',
];
