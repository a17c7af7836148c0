import type { Model } from '../model/index.js';

/** One thing the intake has to say about a place in its source. */
export interface IntakeNote {
  /** Line of the source, from 1. */
  readonly line: number;
  /** What stands there, shortened. */
  readonly source: string;
  /** What it became, was taken for, or why it was left out. */
  readonly note: string;
}

/** What became of a source: a model to be kept or not, and an account of how it came about. */
export interface Intake {
  readonly model: Model;
  /** The model as notation, ready to be edited. */
  readonly text: string;
  readonly understood: readonly IntakeNote[];
  /** Decisions nobody had taken. */
  readonly assumed: readonly IntakeNote[];
  readonly leftOut: readonly IntakeNote[];
}

/** The largest source that is read, in bytes of UTF-8: 5 MiB. */
export const MAX_INTAKE_BYTES = 5 * 1_048_576;

/** Gathers notes while a source is read. */
export class Report {
  readonly understood: IntakeNote[] = [];
  readonly assumed: IntakeNote[] = [];
  readonly leftOut: IntakeNote[] = [];

  understand(line: number, source: string, note: string): void {
    this.understood.push({ line, source: shorten(source), note });
  }

  assume(line: number, source: string, note: string): void {
    this.assumed.push({ line, source: shorten(source), note });
  }

  leave(line: number, source: string, note: string): void {
    this.leftOut.push({ line, source: shorten(source), note });
  }
}

const MOST = 90;

const shorten = (text: string): string => {
  const line = text.replace(/\s+/g, ' ').trim();
  return line.length <= MOST ? line : `${line.slice(0, MOST - 1)}…`;
};
