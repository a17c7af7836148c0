import { utf8Length } from '../model/index.js';
import { readJsonSchema } from './jsonSchema/readJsonSchema.js';
import { readRecords } from './records/readRecords.js';
import { MAX_INTAKE_BYTES, Report, type Intake, type IntakeOptions, type IntakeProgress } from './report.js';
import { finishIntake } from './finishIntake.js';
import { readSql } from './sql/readSql.js';

/** What can be read as a model; adding one is adding a folder. */
const READERS = {
  sql: readSql,
  'json-schema': readJsonSchema,
  records: readRecords,
} as const satisfies Record<string, (source: string, name: string, options: IntakeOptions) => Intake>;

export type IntakeFormat = keyof typeof READERS;

export const INTAKE_FORMATS = Object.keys(READERS) as readonly IntakeFormat[];

/** A byte order mark says nothing about the model. */
const withoutMark = (source: string): string => source.replace(/^\ufeff/, '');

/**
 * Reads a source as a model with a report. Total: what cannot be read is accounted for, and a source that is
 * no text, or too large, is a problem of the whole.
 */
export function importModel(
  format: IntakeFormat,
  source: string,
  name: string,
  options: IntakeOptions = {},
): Intake {
  const bytes = utf8Length(source);
  if (bytes > MAX_INTAKE_BYTES)
    return refused(name, `The source has ${bytes} bytes; the limit is ${MAX_INTAKE_BYTES}.`);
  if (source.includes('\u0000')) return refused(name, 'The source is no text: it has zero bytes in it.');
  if (source.trim() === '') return refused(name, 'The source is empty.');
  const progress = options.progress === undefined ? undefined : inHundredths(options.progress);
  return READERS[format](withoutMark(source), name, { ...options, progress });
}

/** Tells a share when it has grown by a hundredth. */
function inHundredths(tell: IntakeProgress): IntakeProgress {
  let last = 0;
  return (done) => {
    if (done - last < 0.01) return;
    last = done;
    tell(done);
  };
}

function refused(name: string, problem: string): Intake {
  const report = new Report();
  report.problem = problem;
  return finishIntake(name, [], report);
}
