import type { IntakeWithRecords } from '@isomeros/core/initialRecords';
import type { IntakeFormat } from '@isomeros/core/intake';
import type { DesignFigures } from '@isomeros/api';

/** An intake as the page shows it: its records stay in the worker, which counts them. */
export interface IntakeView extends Omit<IntakeWithRecords, 'rows'> {
  readonly records: number;
}

export interface ReadSource {
  readonly intake: IntakeView;
  /** What the model would amount to; `null` where nothing could be read. */
  readonly figures: DesignFigures | null;
}

/** Chosen options by the index of their question. */
export type ChosenAnswers = Readonly<Record<number, number>>;

/** What the worker that takes a source in is asked. */
export type IntakeProtocol = Readonly<{
  read: {
    question: {
      readonly format: IntakeFormat;
      readonly source: string;
      readonly name: string;
      readonly record: string;
    };
    answer: ReadSource;
  };
  /** The source that was read, with other answers, one of them what one record is. */
  answer: { question: { readonly chosen: ChosenAnswers; readonly record: string }; answer: ReadSource };
}>;
