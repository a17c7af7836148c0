import type { Attribute, Entity, Owns, RefersTo } from './types.js';

/** A combination of values that no two records of an entity share. */
export interface UniqueConstraint {
  /** Unique in the model. */
  readonly id: string;
  /** Identities of the attributes, references and ownership whose values count. */
  readonly parts: readonly string[];
  /** The names of the parts, for messages. */
  readonly names: readonly string[];
}

/** What the store must know about one entity. */
export interface EntityStorage {
  readonly entity: Entity;
  /** What records hold. */
  readonly attributes: readonly Attribute[];
  /** What is made of what they hold. */
  readonly computed: readonly Attribute[];
  readonly singleton: boolean;
  /** The constraint by which there is one record at most; `null` where there may be any number. */
  readonly singleConstraint: UniqueConstraint | null;
  readonly key: Attribute;
  /** The constraint by which a record is found by its key; scoped keys have the owner as second part. */
  readonly keyConstraint: UniqueConstraint;
  /** The constraint by which an owner has one record in a slot; `null` where it fills none. */
  readonly slotConstraint: UniqueConstraint | null;
  readonly uniques: readonly UniqueConstraint[];
  readonly owner: Owns | null;
  readonly references: readonly RefersTo[];
  readonly slots: readonly Owns[];
}
