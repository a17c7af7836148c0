import type { Choices } from '@isomeros/core/arrangement';
import type { Contract, ContractDifference } from '@isomeros/core/contract';
import type { Identities, Model, ModelEdit } from '@isomeros/core/model';
import type { Diagnostic, StatementPlace } from '@isomeros/core/notation';
import type { DesignFigures } from '../app/api/types.js';

export interface TextToDerive {
  /** The id of the design the text belongs to. */
  readonly design: string;
  readonly text: string;
  readonly identities: Identities;
  /** What to derive from while the text has errors and nothing of this design was derived before. */
  readonly soundText: string;
  readonly choices: Choices;
}

/** What the page asks of the worker. `number` comes back in the answer. */
export type Question =
  | ({ readonly kind: 'derive'; readonly number: number } & TextToDerive)
  | { readonly kind: 'example'; readonly number: number; readonly operation: string }
  /** What the contract would gain and lose by an edit of the last sound model. */
  | { readonly kind: 'consequence'; readonly number: number; readonly edit: ModelEdit };

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
  | {
      readonly kind: 'consequence';
      readonly number: number;
      /** `null` while there is no sound model, or where the edit would leave none. */
      readonly difference: ContractDifference | null;
    };
