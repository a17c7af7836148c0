import type { Json } from './records.js';

/** What a model is made of. Plain immutable data; every element carries a stable identity (`id`). */

/** A range, its bounds included where nothing else is said; `null` leaves that end open. */
export interface Range {
  readonly min: number | null;
  readonly max: number | null;
}

/** Which bounds of a range are not in it themselves; those that are say nothing. */
export interface ExclusiveBounds {
  readonly exclusiveMin?: true;
  readonly exclusiveMax?: true;
}

/** Types whose values are one JSON string, number or boolean. */
export type ScalarType =
  | ({ readonly kind: 'text'; readonly pattern: string | null } & Range)
  | ({ readonly kind: 'integer' } & Range)
  | ({ readonly kind: 'decimal'; readonly scale: number | null } & Range & ExclusiveBounds)
  | { readonly kind: 'boolean' }
  | { readonly kind: 'date' }
  | { readonly kind: 'time' }
  | { readonly kind: 'instant' }
  | { readonly kind: 'duration' }
  | { readonly kind: 'uuid' }
  | { readonly kind: 'email' }
  | { readonly kind: 'uri' }
  | { readonly kind: 'choice'; readonly options: readonly string[] };

export type ScalarKind = ScalarType['kind'];

export type AttributeType =
  | ScalarType
  | { readonly kind: 'json' }
  | { readonly kind: 'value'; readonly name: string }
  | ({ readonly kind: 'list'; readonly of: AttributeType } & Range);

export const isScalarType = (type: AttributeType): type is ScalarType =>
  type.kind !== 'json' && type.kind !== 'value' && type.kind !== 'list';

/** A literal as the notation writes it after `default` or `example`. */
export type Literal = string | number | boolean;

export interface KeyFlag {
  readonly generated: boolean;
  /** The role of the owner that the key is unique under, or `null` when it is unique everywhere. */
  readonly within: string | null;
}

/** What every element of a model has. */
export interface Statement {
  readonly id: string;
  /** The quoted text at the end of the statement, or `null`. */
  readonly description: string | null;
  /** Comment lines above the statement, without `#`. */
  readonly comments: readonly string[];
}

export interface Attribute extends Statement {
  readonly kind: 'attribute';
  readonly name: string;
  readonly type: AttributeType;
  readonly required: boolean;
  readonly unique: boolean;
  /** Unique among the records that share the target of this to-one role. */
  readonly uniqueWithin: string | null;
  readonly key: KeyFlag | null;
  readonly generated: boolean;
  readonly touched: boolean;
  readonly fixed: boolean;
  readonly readOnly: boolean;
  readonly writeOnly: boolean;
  /** Of a list or JSON any value; `null` where there is none. */
  readonly defaultValue: Json;
  readonly example: Json;
  /** The transitions by which a choice moves between its options; `null` where it may be set freely. */
  readonly lifeCycle: readonly Transition[] | null;
  /** How it is made of others, where nobody sends or stores it. */
  readonly computed: Expression | null;
}

export type CompareOperator = '=' | '!=' | '<' | '<=' | '>' | '>=';

/** An attribute of the same entity against a literal or the moment of the request. */
export interface Comparison {
  readonly attribute: string;
  readonly operator: CompareOperator;
  readonly operand: { readonly kind: 'literal'; readonly value: Literal } | { readonly kind: 'now' };
}

/** Alternatives joined by `or`, each of comparisons joined by `and`. */
export type Condition = readonly (readonly Comparison[])[];

/** How a computed attribute is made of others. */
export type Expression =
  | { readonly kind: 'literal'; readonly value: number | string }
  /** An attribute of the same record. */
  | { readonly kind: 'attribute'; readonly name: string }
  | {
      readonly kind: 'operation';
      readonly operator: ExpressionOperator;
      readonly left: Expression;
      readonly right: Expression;
    }
  | Aggregate;

export type ExpressionOperator = '+' | '-' | '*' | '/' | '&';

/** How what is found is taken together. */
export type AggregateKind = 'count' | 'sum' | 'min' | 'max' | 'average';

/** What is found along some roles, taken together. */
export interface Aggregate {
  readonly kind: 'aggregate';
  readonly of: AggregateKind;
  /** The roles that lead there, one after another; at least one. */
  readonly roles: readonly string[];
  /** The attribute that is taken; `null` where records are counted. */
  readonly attribute: string | null;
  /** All must hold for a record to count. */
  readonly where: readonly AlongComparison[];
}

/** An attribute of a record on the way against a literal. */
export interface AlongComparison {
  /** The roles that lead to the record it is about; none for those at the end. */
  readonly roles: readonly string[];
  readonly attribute: string;
  readonly operator: CompareOperator;
  readonly value: Literal;
}

export interface Transition extends Statement {
  readonly kind: 'transition';
  readonly name: string;
  /** The states it leads from. */
  readonly from: readonly string[];
  readonly to: string;
  readonly when: Condition | null;
}

/** A combination of attributes and to-one roles that no two records share. */
export interface UniqueRule extends Statement {
  readonly kind: 'unique';
  readonly names: readonly string[];
}

/** The type of the id that an entity has which declares no key. */
export type ImplicitId = 'integer' | 'uuid';

export interface Entity extends Statement {
  readonly kind: 'entity';
  readonly name: string;
  /** A setting of the design rather than something the text says; a parser gives `integer`. */
  readonly implicitId: ImplicitId;
  /** Whether there is exactly one record of it: a choice of an arrangement rather than something the text says. */
  readonly single?: boolean;
  readonly attributes: readonly Attribute[];
  readonly uniques: readonly UniqueRule[];
}

/** A structured value: no identity of its own, no URL. */
export interface ValueDefinition extends Statement {
  readonly kind: 'value';
  readonly name: string;
  readonly attributes: readonly Attribute[];
}

export type OnRemove = 'cascade' | 'restrict' | 'detach';

interface RelationshipBase extends Statement {
  /** The entity the sentence starts with. */
  readonly from: string;
  readonly to: string;
  /** The role as written, or `null` where it was left out and is derived. */
  readonly role: string | null;
  readonly back: string | null;
  /** The rule as written, or `null` where the verb's default holds. */
  readonly onRemove: OnRemove | null;
}

export interface Owns extends RelationshipBase {
  readonly kind: 'owns';
  readonly cardinality: 'many' | 'one' | 'optional';
}

export interface RefersTo extends RelationshipBase {
  readonly kind: 'refers';
  readonly cardinality: 'one' | 'optional';
  readonly fixed: boolean;
  readonly unique: boolean;
}

/** Many-to-many: a pair exists once, and may carry the attributes of a value. */
export interface PairsWith extends RelationshipBase {
  readonly kind: 'pairs';
  readonly cardinality: 'many';
  /** The name of the value each pair has, or `null`. */
  readonly carrying: string | null;
}

export type Relationship = Owns | RefersTo | PairsWith;
export type Declaration = Entity | ValueDefinition | Relationship;

export interface Model {
  readonly name: string;
  readonly description: string | null;
  readonly comments: readonly string[];
  /** In the order of the text. */
  readonly declarations: readonly Declaration[];
  /** Comment lines after the last statement. */
  readonly trailingComments: readonly string[];
}
