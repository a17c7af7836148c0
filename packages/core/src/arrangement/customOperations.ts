import type { AggregateKind, CompareOperator, Literal } from '../model/index.js';
import type { FilterOperator } from './exposure.js';

/** An operation that no rule derives: what it does is one of a closed set of effects. */
export interface CustomOperation {
  /** Unique in its arrangement; outlives its name. */
  readonly id: string;
  /** In camelCase; the path word and the name of the operation come from it. */
  readonly name: string;
  /** The identity of the entity whose records it is about; `null` for what is about none. */
  readonly entity: string | null;
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

/** Something that is sent and that no record stores. */
export interface InputRules {
  /** As the notation writes it: `text(..80)`. */
  readonly type: string;
  readonly required: boolean;
  /** Then it is written down nowhere. */
  readonly secret: boolean;
  /** What it is where it is not sent. */
  readonly default?: Operand;
  /** The identity of an attribute that is sent beside it, and that it must equal. */
  readonly equals?: string;
}

/** Something that the body of an operation of one's own carries as well. */
export interface AcceptedInput extends InputRules {
  readonly name: string;
}

/** What is accepted beside what the effect itself says is sent. */
interface Accepting {
  readonly accepts?: readonly AcceptedInput[];
}

/** In the bodies that make a record, or that carry out a transition: an input of the name of the operation. */
interface AcceptEffect extends InputRules {
  readonly kind: 'accept';
  /** The identity of the transition; `null` for what makes a record. */
  readonly transition: string | null;
}

/** POST below the item: gives members values while every comparison holds. */
interface AssignEffect extends Accepting {
  readonly kind: 'assign';
  readonly when: readonly OwnComparison[];
  readonly values: readonly AssignedMember[];
}

/** POST below the item: makes a record that it owns, or that refers to it. */
interface CreateEffect extends Accepting {
  readonly kind: 'create';
  readonly when: readonly OwnComparison[];
  /** The identity of the ownership or of the reference. */
  readonly relationship: string;
  readonly values: readonly AssignedMember[];
}

/** GET below the item or the collection: what some records have, taken together. */
export interface AggregateEffect {
  readonly kind: 'aggregate';
  readonly of: AggregateKind;
  /** The relationships that lead from the item to the records; none where they are those of the collection. */
  readonly along: readonly AlongStep[];
  /** The attribute that is taken; `null` where records are counted. */
  readonly member: string | null;
  /** Digits after the point, where an average is rounded. */
  readonly scale: number | null;
  readonly filters: readonly FixedFilter[];
}

/** A step along a relationship by its identity, as its sentence reads or the other way. */
export interface AlongStep {
  readonly relationship: string;
  readonly direction: 'onwards' | 'back';
}

export type CustomEffect =
  /** GET below the collection: the first of what is looked for. */
  | ListEffect
  /** GET below the collection: the first record that a query would list. */
  | FindEffect
  | AssignEffect
  | CreateEffect
  | AcceptEffect
  | AggregateEffect
  | ManyEffect
  | VerifyEffect
  /** POST below the collection: ends the token that it is sent with. */
  | { readonly kind: 'revoke' }
  /** GET at the root: the record that the token of the caller was handed out for. */
  | { readonly kind: 'caller' }
  /** GET at the root: the same for everybody. */
  | { readonly kind: 'fixed'; readonly body: FixedValue };

/** POST below the collection: does the same to many records, to all of them or to none. */
export interface ManyEffect extends Accepting {
  readonly kind: 'many';
  /** Those that every filter keeps, or those whose ids are sent. */
  readonly over:
    { readonly kind: 'condition'; readonly filters: readonly FixedFilter[] } | { readonly kind: 'ids' };
  readonly does:
    | {
        readonly kind: 'assign';
        readonly when: readonly OwnComparison[];
        readonly values: readonly AssignedMember[];
      }
    /** A transition by its identity. */
    | { readonly kind: 'transition'; readonly transition: string };
}

/** POST below the collection: finds the record whose attributes equal all inputs, and answers it, or a token for it. */
export interface VerifyEffect extends Accepting {
  readonly kind: 'verify';
  /** Attributes by their identity, each with the name of the input that it must equal. */
  readonly compared: readonly { readonly member: string; readonly input: string }[];
  readonly answers: VerifyAnswer;
  /** Whether what does not match is 401 or 404. */
  readonly failure: VerifyFailure;
}

export type VerifyAnswer =
  | { readonly kind: 'record' }
  /** `seconds`: how long the token holds. */
  | { readonly kind: 'token'; readonly seconds: number; readonly role: TokenRole | null };

export type VerifyFailure = 'unauthenticated' | 'missing';

/** The role of whoever has a token: always the same, or what a choice attribute of the record says then. */
export type TokenRole =
  | { readonly kind: 'fixed'; readonly role: string }
  | { readonly kind: 'attribute'; readonly attribute: string };

/** JSON whose values may also be the moment of the request, or the version of the contract. */
export type FixedValue =
  | { readonly kind: 'literal'; readonly value: Literal | null }
  | { readonly kind: 'now' }
  | { readonly kind: 'version' }
  | { readonly kind: 'list'; readonly items: readonly FixedValue[] }
  | {
      readonly kind: 'object';
      readonly members: readonly { readonly name: string; readonly value: FixedValue }[];
    };

/** Whether an answer differs from moment to moment. */
export function hasMoment(body: FixedValue): boolean {
  switch (body.kind) {
    case 'now':
      return true;
    case 'literal':
    case 'version':
      return false;
    case 'list':
      return body.items.some(hasMoment);
    case 'object':
      return body.members.some(({ value }) => hasMoment(value));
  }
}

/** What an operation of one's own stands below. */
export type CustomPlace = 'entry' | 'collection' | 'item';

/** What decides where an effect stands. */
type Placeable =
  | { readonly kind: Exclude<CustomEffect['kind'], 'aggregate'> }
  | { readonly kind: 'aggregate'; readonly along: readonly unknown[] };

/** Where operations of an effect are said; that of the caller stands at the root all the same. */
export function placeOfEffect(effect: Placeable): CustomPlace {
  switch (effect.kind) {
    case 'aggregate':
      return effect.along.length === 0 ? 'collection' : 'item';
    case 'fixed':
      return 'entry';
    case 'query':
    case 'find':
    case 'many':
    case 'verify':
    case 'revoke':
    case 'caller':
    case 'accept':
      return 'collection';
    case 'assign':
    case 'create':
      return 'item';
  }
}

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
  readonly value: Operand | { readonly kind: 'unset' } | { readonly kind: 'input' } | ChosenValue;
}

/** A value by which of some words is sent. */
export interface ChosenValue {
  readonly kind: 'chosen';
  /** The name of the input, a choice of the words. */
  readonly input: string;
  readonly options: readonly ChosenOption[];
}

export interface ChosenOption {
  readonly option: string;
  readonly value: Operand | { readonly kind: 'unset' };
}

/** What they, and what they are sent, can be called. */
export const CUSTOM_NAME = /^[a-z][A-Za-z0-9]{0,59}$/;
/** More of them an arrangement cannot have. */
export const MOST_CUSTOM_OPERATIONS = 500;
export const MOST_PARTS = 50;
/** An aggregate looks along no more roles. */
export const MOST_ALONG = 5;
export const MOST_SCALE = 10;
export const MOST_QUERIED = 1_000;
/** An operation acts on no more records at once. */
export const MOST_ACTED_ON = 1_000;
/** A token holds a year at most. */
export const LONGEST_TOKEN = 366 * 24 * 60 * 60;
/** A fixed answer is nested no deeper. */
export const DEEPEST_FIXED = 8;

export const FIXED_OPERATORS: readonly FixedFilter['operator'][] = [
  'eq',
  'ne',
  'lt',
  'lte',
  'gt',
  'gte',
  'unset',
];
