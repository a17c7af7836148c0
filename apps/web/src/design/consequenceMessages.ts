import type { Choices } from '@isomeros/core/arrangement';
import type { ChangeSummary } from '@isomeros/core/comparison';
import type { Outline } from '@isomeros/core/contract';
import type { DesignReleases } from './baselineReleases.js';
import type { Identities, ModelEdit } from '@isomeros/core/model';

/** Something that might be done to a design. */
export type Step =
  | { readonly kind: 'edit'; readonly edit: ModelEdit }
  | { readonly kind: 'choices'; readonly choices: Choices };

/** What would come and go by each of these steps? */
export interface ConsequenceQuestion {
  readonly number: number;
  readonly design: string;
  readonly text: string;
  readonly identities: Identities;
  readonly choices: Choices;
  readonly arrangement: string;
  readonly steps: readonly Step[];
}

/** Compare with these releases from now on. */
export interface LoadReleases {
  readonly held: DesignReleases;
}

export interface Consequence {
  readonly summary: ChangeSummary;
  /** The path tree as it would be. */
  readonly outline: Outline;
}

export interface ConsequenceAnswer {
  readonly number: number;
  /** `null` where the text has errors, or would have some. */
  readonly consequences: readonly (Consequence | null)[];
}
