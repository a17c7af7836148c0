import type { FixedFilter, AlongStep, Operand, OwnComparison } from './customOperations.js';

/** A link that no rule derives: where it leads is one of a closed set of targets. */
export interface OwnLink {
  /** Unique in its arrangement; outlives its relation. */
  readonly id: string;
  /** The id of the resource whose answers carry it. */
  readonly resource: string;
  /** One that is registered, or a word of one's own. */
  readonly relation: string;
  readonly target: OwnLinkTarget;
  /** When a record offers it; always where nothing is asked for. */
  readonly when: readonly OwnComparison[];
}

export type OwnLinkTarget =
  /** An operation by its resource and verb. What nothing fills in is left to the client, as a URI template. */
  | {
      readonly kind: 'operation';
      readonly resource: string;
      readonly verb: string;
      readonly bound: readonly BoundParameter[];
      readonly filters: readonly BoundFilter[];
      /** Members by their identity, the first deciding. */
      readonly order: readonly { readonly member: string; readonly descending: boolean }[];
      readonly size: number | null;
    }
  /** The record that roles lead to. */
  | { readonly kind: 'record'; readonly along: readonly AlongStep[] }
  /** An address elsewhere: literal texts, and values that are percent-encoded. */
  | { readonly kind: 'address'; readonly parts: readonly AddressPart[] };

/** A value of the record that offers the link, or of one that roles lead to from it. */
export interface ReachedMember {
  readonly kind: 'member';
  readonly along: readonly AlongStep[];
  /** The identity of an attribute, of a reference, or of the ownership whose owner it is. */
  readonly member: string;
}

export type LinkOperand = Operand | ReachedMember;
export type AddressPart = { readonly kind: 'text'; readonly text: string } | ReachedMember;

export interface BoundParameter {
  /** The identity of the entity whose id stands in the path, or the name of an input. */
  readonly parameter: string;
  readonly value: LinkOperand;
}

export interface BoundFilter {
  readonly member: string;
  readonly operator: Exclude<FixedFilter['operator'], 'unset'>;
  readonly value: LinkOperand;
}

/** More of them an arrangement cannot have. */
export const MOST_OWN_LINKS = 1_000;
