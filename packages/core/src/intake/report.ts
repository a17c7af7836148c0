import type { Model, ModelEdit } from '../model/index.js';
import type { IntakeRecord } from './intakeRecord.js';
import type { SourceLines } from './lines.js';

/** The largest source that is read, in bytes of UTF-8: 10 MiB. */
export const MAX_INTAKE_BYTES = 10 * 1_048_576;

/** What of the source a statement of the model came from, and why it says what it says. */
export interface Understood extends SourceLines {
  /** The identity of the statement. */
  readonly statement: string;
  readonly because: string;
}

/** A decision that the source leaves open. */
export interface IntakeQuestion extends SourceLines {
  readonly question: string;
  /** What the source says, and does not say. */
  readonly ground: string;
  readonly options: readonly IntakeOption[];
  /** What one record was taken to be called, where it is asked and any other name can be said; else `null`. */
  readonly record: string | null;
}

export interface IntakeOption {
  readonly label: string;
  readonly assumed: boolean;
  /** What choosing it changes in the model; nothing where it was assumed. */
  readonly edits: readonly ModelEdit[];
}

/** Something the model does not say. */
export interface LeftOut extends SourceLines {
  /** What stands there, shortened. */
  readonly source: string;
  readonly why: string;
}

/** Something that the source leaves open and that has one answer here. */
export interface Assumed extends SourceLines {
  readonly assumption: string;
  /** What the source says, and does not say. */
  readonly ground: string;
}

/** What a source declares, in the order in which it is counted. */
export const COUNTED_KINDS = [
  'definitions',
  'members',
  'records',
  'tables',
  'columns',
  'keys',
  'foreign keys',
  'unique rules',
  'checks',
  'defaults',
] as const;

export type CountedKind = (typeof COUNTED_KINDS)[number];

/** What became of all of a kind: `found` is the sum of the others. */
export interface IntakeCount {
  readonly kind: CountedKind;
  readonly found: number;
  readonly understood: number;
  readonly asked: number;
  readonly leftOut: number;
}

/** What became of a source: a model to be kept or not, and an account of how it came about. */
export interface Intake {
  readonly model: Model;
  /** The model as notation, ready to be edited; always without errors. */
  readonly text: string;
  readonly understood: readonly Understood[];
  readonly assumed: readonly Assumed[];
  readonly asked: readonly IntakeQuestion[];
  readonly leftOut: readonly LeftOut[];
  readonly counts: readonly IntakeCount[];
  /** The records that the source has, as it writes them. */
  readonly records: readonly IntakeRecord[];
  /** Where each statement stands in `text`, by its identity. */
  readonly places: Readonly<Record<string, SourceLines>>;
  /** Why nothing could be read; `null` where something could. */
  readonly problem: string | null;
}

/** Told now and then while a source is read: the share that is done, from 0 to 1. */
export type IntakeProgress = (done: number) => void;

/** How a source is read. */
export interface IntakeOptions {
  readonly progress?: IntakeProgress | undefined;
  /** What one record is, where the source does not say; else it is called after the design. */
  readonly record?: string | undefined;
  /** Milliseconds since 1970 that times are taken from which the source leaves to be set; unset where it is left out. */
  readonly now?: number | undefined;
}

/** One thing that a source declares: the statement that says it, or `null` where none does. */
export interface Tallied {
  readonly kind: CountedKind;
  readonly statement: string | null;
  readonly count: number;
}

/** Gathers what there is to say while a source is read. */
export class Report {
  readonly understood: Understood[] = [];
  readonly assumed: Assumed[] = [];
  readonly asked: IntakeQuestion[] = [];
  readonly leftOut: LeftOut[] = [];
  readonly tallied: Tallied[] = [];
  /** What says a statement that is not written itself. */
  readonly saidBy = new Map<string, string>();
  /** The statements that questions are about. */
  readonly askedAbout = new Set<string>();
  /** The records of the source. */
  records: readonly IntakeRecord[] = [];
  problem: string | null = null;

  understand(statement: string, { line, endLine }: SourceLines, because: string): void {
    this.understood.push({ statement, line, endLine, because });
  }

  ask(
    { line, endLine }: SourceLines,
    question: string,
    ground: string,
    options: readonly IntakeOption[],
    /** The statement that it is about. */
    about: string | null = null,
  ): void {
    if (about !== null) this.askedAbout.add(about);
    this.asked.push({ line, endLine, question, ground, options, record: null });
  }

  /** Asks whether a secret may be returned. `name`: what it is called; `attribute`: its identity. */
  askSecret(lines: SourceLines, name: string, attribute: string): void {
    this.ask(
      lines,
      `May ${name} ever be returned?`,
      'Its name says that it is a secret.',
      [
        assumed('never'),
        instead('yes', { kind: 'change-attribute', attribute, change: { writeOnly: false } }),
        instead('leave it out', { kind: 'remove', statement: attribute }),
      ],
      attribute,
    );
  }

  /** Tells what was taken to be so where nothing else can be. */
  assume({ line, endLine }: SourceLines, assumption: string, ground: string): void {
    this.assumed.push({ line, endLine, assumption, ground });
  }

  /** A statement that was counted is said by another one. */
  becomes(statement: string, other: string): void {
    this.saidBy.set(statement, other);
  }

  /** Counts something that the source declares, once; or so many things that one statement says. */
  tally(kind: CountedKind, statement: string | null, count = 1): void {
    this.tallied.push({ kind, statement, count });
  }

  /** Asks what one record is, where the source leaves it open. */
  askRecord({ line, endLine }: SourceLines, record: string): void {
    this.asked.push({
      line,
      endLine,
      question: 'What is one of these records?',
      ground: 'Nothing in the source says so.',
      options: [],
      record,
    });
  }

  leave({ line, endLine }: SourceLines, source: string, why: string): void {
    this.leftOut.push({ line, endLine, source: shorten(source), why });
  }
}

/** The option that the intake took. */
export const assumed = (label: string): IntakeOption => ({ label, assumed: true, edits: [] });

export const instead = (label: string, ...edits: readonly ModelEdit[]): IntakeOption => ({
  label,
  assumed: false,
  edits,
});

const MOST = 90;

const shorten = (text: string): string => {
  const line = text.replace(/\s+/g, ' ').trim();
  return line.length <= MOST ? line : `${line.slice(0, MOST - 1)}…`;
};
