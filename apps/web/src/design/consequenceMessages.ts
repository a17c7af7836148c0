import type { Choices } from '@isomeros/core/arrangement';
import type { ContractDifference } from '@isomeros/core/contract';
import type { Identities, ModelEdit } from '@isomeros/core/model';

/** What would come and go by each of these edits of a text? */
export interface ConsequenceQuestion {
  readonly number: number;
  readonly text: string;
  readonly identities: Identities;
  readonly choices: Choices;
  readonly edits: readonly ModelEdit[];
}

export interface ConsequenceAnswer {
  readonly number: number;
  /** `null` where the text has errors, or would have some. */
  readonly differences: readonly (ContractDifference | null)[];
}
