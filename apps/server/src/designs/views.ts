import type { Choices } from '@isomeros/core/arrangement';
import type { FingerprintColumn } from '@isomeros/core/contract';
import type { Identities, PossibleRename } from '@isomeros/core/model';
import type { Diagnostic } from '@isomeros/core/notation';
import type { DesignFigures } from './figures.js';

/** A design as a list shows it. */
export interface DesignSummary {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly createdAt: string;
  readonly changedAt: string;
  readonly arrangements: readonly { readonly name: string }[];
  /** Whether the saved text has no errors; figures are those of the last sound one. */
  readonly valid: boolean;
  readonly figures: DesignFigures;
  readonly fingerprint: readonly FingerprintColumn[];
}

/** A design with its model. */
export interface DesignView extends DesignSummary {
  readonly text: string;
  /** The last saved text without errors: what contracts are derived from. */
  readonly validText: string;
  readonly identities: Identities;
  readonly diagnostics: readonly Diagnostic[];
  readonly choices: Choices;
  /** What went and what came in its place: each may have been a rename. */
  readonly possibleRenames: readonly PossibleRename[];
}
