import type { Contract } from '@isomeros/core/contract';
import type { Intake } from '@isomeros/core/intake';
import type { Identities, Model } from '@isomeros/core/model';
import type { Diagnostic, StatementPlace } from '@isomeros/core/notation';
import type { DesignFigures } from '../app/api/types.js';

export interface TextToDerive {
  /** The id of the design the text belongs to. */
  readonly design: string;
  readonly text: string;
  readonly identities: Identities;
  /** What to derive from while the text has errors and nothing of this design was derived before. */
  readonly soundText: string;
}

/** What the page asks of the worker. `number` comes back in the answer. */
export type Question =
  | ({ readonly kind: 'derive'; readonly number: number } & TextToDerive)
  | { readonly kind: 'example'; readonly number: number; readonly operation: string }
  | { readonly kind: 'intake'; readonly number: number; readonly source: string; readonly name: string };

export interface Derived {
  /** What could be read of the text, errors or not. */
  readonly model: Model;
  readonly diagnostics: readonly Diagnostic[];
  /** By the identity of a statement. */
  readonly places: Readonly<Record<string, StatementPlace>>;
  /** `null` where the text has errors and the contract of the last sound one stays. */
  readonly contract: Contract | null;
  readonly figures: DesignFigures | null;
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

export type Answer =
  | ({ readonly kind: 'derived'; readonly number: number } & Derived)
  | { readonly kind: 'example'; readonly number: number; readonly example: ExampleExchange | null }
  | { readonly kind: 'taken-in'; readonly number: number; readonly intake: Intake };
