import { namedRecords, withRecords, type IntakeWithRecords } from '@isomeros/core/initialRecords';
import { answer, importModel, type IntakeFormat } from '@isomeros/core/intake';

const NOW = Date.parse('2026-06-14T09:12:00Z');

/** A source with its records, as they fit the model after some answers. */
export function read(
  format: IntakeFormat,
  source: string,
  answers: Record<number, number> = {},
): IntakeWithRecords {
  let made = 0;
  const uuid = (): string => `00000000-0000-4000-8000-${String(++made).padStart(12, '0')}`;
  const intake = importModel(format, source, 'Given', { now: NOW, record: 'Item' });
  return withRecords(answer(intake, answers), { now: NOW, uuid });
}

/** The records that fit, by the names of the model. */
export const records = (intake: IntakeWithRecords): unknown =>
  JSON.parse(JSON.stringify(namedRecords(intake.model, intake.rows)));

/** What was left out, each with its line. */
export const left = ({ leftOut }: IntakeWithRecords): readonly (readonly [number, string, string])[] =>
  leftOut.map(({ line, source, why }) => [line, source, why]);
