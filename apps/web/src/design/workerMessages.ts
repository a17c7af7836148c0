import type { ContractChange } from '@isomeros/core/comparison';
import type { Choices } from '@isomeros/core/arrangement';
import type { GridRow } from '@isomeros/core/derivation';
import type { Identities, Model } from '@isomeros/core/model';
import type { Diagnostic, StatementPlace } from '@isomeros/core/notation';
import type { DesignFigures } from '@isomeros/api';
import type { DesignReleases } from './baselineReleases.js';
import type { Impact } from './impact.js';
import type { Assumption, Finding, Outline } from '@isomeros/core/contract';

export interface TextToDerive {
  /** The id of the design the text belongs to. */
  readonly design: string;
  readonly text: string;
  readonly identities: Identities;
  /** What to derive from while the text has errors and nothing of this design was derived before. */
  readonly validText: string;
  readonly choices: Choices;
  /** The name of the arrangement to derive. */
  readonly arrangement: string;
}

/** What the page asks of the worker. `number` comes back in the answer. */
export type WorkerQuestion =
  | ({ readonly kind: 'derive'; readonly number: number } & TextToDerive)
  /** What is asked next is about this text. */
  | ({ readonly kind: 'take'; readonly number: number } & TextToDerive)
  /** Compare with these releases from now on. */
  | { readonly kind: 'hold'; readonly number: number; readonly held: DesignReleases }
  /** What changed from a release to the contract of the last sound text. */
  | { readonly kind: 'changes'; readonly number: number; readonly label: string }
  /** What is found and assumed in the contract of the last sound text. */
  | { readonly kind: 'review'; readonly number: number }
  /** The whole contract of the last sound text. */
  | { readonly kind: 'contract'; readonly number: number }
  /** What one statement, by its identity, implies. */
  | { readonly kind: 'implied'; readonly number: number; readonly statement: string }
  | { readonly kind: 'example'; readonly number: number; readonly operation: string }
  /** What goes in and what comes out of the records of an entity, by its name. */
  | { readonly kind: 'grid'; readonly number: number; readonly entity: string };

/** What was read of a text. */
export interface ReadText {
  /** What could be read of it, errors or not. */
  readonly model: Model;
  readonly diagnostics: readonly Diagnostic[];
  /** By the identity of a statement. */
  readonly places: Readonly<Record<string, StatementPlace>>;
}

/** What the worker answers: the reading is left out where the text is the one it read last. */
export interface DerivedText extends Pick<Derived, 'outline' | 'milliseconds'> {
  readonly read: ReadText | null;
}

export interface Derived extends ReadText {
  /** `null` where the text has errors and the contract of the last sound one stays. */
  readonly outline: Outline | null;
  readonly milliseconds: number;
}

/** What follows from the whole contract; asked for when the typing pauses. */
export interface Reviewed {
  /** What breaks a release comes first. */
  readonly findings: readonly Finding[];
  readonly assumptions: readonly Assumption[];
  readonly figures: DesignFigures;
  /** How many changes break the release that has to go on being served. */
  readonly breaking: number;
  readonly milliseconds: number;
}

/** A request with its answer, as they travel. */
export interface ExampleExchange {
  readonly requestHead: readonly string[];
  readonly requestBody: string | null;
  readonly statusLine: string;
  readonly responseHead: readonly string[];
  readonly responseBody: string | null;
}

export type WorkerAnswer =
  /** As JSON: read many times faster than a copy is made of it. */
  | { readonly kind: 'derived'; readonly number: number; readonly json: string }
  | { readonly kind: 'taken'; readonly number: number }
  | { readonly kind: 'held'; readonly number: number }
  | { readonly kind: 'changes'; readonly number: number; readonly changes: readonly ContractChange[] | null }
  | { readonly kind: 'reviewed'; readonly number: number; readonly json: string }
  | { readonly kind: 'contract'; readonly number: number; readonly json: string }
  | { readonly kind: 'implied'; readonly number: number; readonly implied: Impact | null }
  | { readonly kind: 'example'; readonly number: number; readonly example: ExampleExchange | null }
  | { readonly kind: 'grid'; readonly number: number; readonly rows: readonly GridRow[] };
