/**
 * How large a model may be. What is derived from some of these grows with their product, so that each has an end
 * of its own, far above what anybody models.
 */
export const MODEL_LIMITS = {
  /** Entities and values of a model. */
  blocks: 4_000,
  /** Relationships of a model. */
  relationships: 12_000,
  /** Relationships that name one entity. */
  relationshipsOfEntity: 1_000,
  /** Attributes of an entity or a value. */
  attributes: 1_000,
  /** Lines `unique (…)` of an entity. */
  uniqueRules: 200,
  /** Names in one line `unique (…)`. */
  uniqueNames: 16,
  /** Options of a choice. */
  options: 1_000,
  /** Transitions of a life cycle. */
  transitions: 200,
  /** Values inside of each other: bodies are read to a depth of 32. */
  nesting: 24,
  /** Characters of a name. */
  nameLength: 100,
} as const;
