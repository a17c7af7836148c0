import type { Intake, IntakeFormat } from '@isomeros/core/intake';
import type { DesignFigures } from '@isomeros/api';

export interface ReadSource {
  readonly intake: Intake;
  /** What the model would amount to; `null` where nothing could be read. */
  readonly figures: DesignFigures | null;
}

/** Chosen options by the index of their question. */
export type ChosenAnswers = Readonly<Record<number, number>>;

export type IntakeRequest =
  | {
      readonly kind: 'read';
      readonly format: IntakeFormat;
      readonly source: string;
      readonly name: string;
    }
  | { readonly kind: 'answer'; readonly chosen: ChosenAnswers };

export type IntakeResponse =
  { readonly kind: 'progress'; readonly done: number } | ({ readonly kind: 'read' } & ReadSource);
