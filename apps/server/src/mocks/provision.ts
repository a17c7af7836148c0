import { FIRST_ARRANGEMENT } from '@isomeros/core/arrangement';
import type { Counters, Service } from '@isomeros/core/engine';
import { indexModel, type Identities, type Row } from '@isomeros/core/model';
import { seed } from '@isomeros/core/seeding';
import type { DatasetRow, MockRow } from '../database/tables.js';
import { readChoices } from '../designs/designRows.js';
import { deriveFrom, type Derivation } from '../designs/derivations.js';
import type { SoundModel } from '../designs/designs.service.js';
import { errorCode } from '../errors.js';
import { ApiProblem } from '../http/problem.js';
import { MOST_RECORDS } from './mocks.dto.js';

const PORT_TAKEN: ReadonlySet<string> = new Set(['EADDRINUSE', 'EACCES']);

/** Whether listening failed because the port is in use, or not ours to take. */
export const isPortTaken = (error: unknown): boolean => PORT_TAKEN.has(errorCode(error) ?? '');

export const serviceOf = ({ model, contract, description }: Derivation): Service => ({
  model,
  contract,
  description,
});

/** The model of a dataset as it is stored. */
export type ModelColumns = Pick<
  DatasetRow,
  'modelText' | 'modelIdentities' | 'modelChoices' | 'modelRevision'
>;

export const modelColumns = (model: SoundModel): ModelColumns => ({
  modelText: model.text,
  modelIdentities: JSON.stringify(model.identities),
  modelChoices: JSON.stringify(model.choices),
  modelRevision: model.revision,
});

/** What a dataset serves: the model it is stored with, whatever the design says by now. */
export const storedDerivation = (stored: ModelColumns, arrangement: string): Derivation =>
  deriveFrom(
    stored.modelText,
    JSON.parse(stored.modelIdentities) as Identities,
    readChoices({ choices: stored.modelChoices }),
    arrangement,
  );

/** What the newest sound model of a design implies. */
export const newestDerivation = (
  { text, identities, choices }: SoundModel,
  arrangement: string,
): Derivation => deriveFrom(text, identities, choices, arrangement);

/** The arrangement that a mock serves. */
export const servedBy = ({ arrangements }: Pick<MockRow, 'arrangements'>): string =>
  (JSON.parse(arrangements) as string[])[0] ?? FIRST_ARRANGEMENT;

/** Whether a dataset is stored with another model than its design has by now. */
export function isOutdated(stored: ModelColumns, model: SoundModel): boolean {
  const newest = modelColumns(model);
  return (
    stored.modelText !== newest.modelText ||
    stored.modelIdentities !== newest.modelIdentities ||
    stored.modelChoices !== newest.modelChoices
  );
}

/** Fresh records with numbers that no record had before. */
export function makeRecords(
  { model }: Derivation,
  seedNumber: number,
  counts: Readonly<Record<string, number>>,
  before: Counters,
): { readonly rows: readonly Row[]; readonly counters: Counters } {
  const made = seed(model, { seed: seedNumber, counts, now: Date.now() });
  return {
    rows: made.rows,
    counters: { rid: Math.max(before.rid, made.rows.length), attributes: made.counters },
  };
}

/** Checks wanted numbers of records against the entities there are. */
export function readCounts(
  given: Readonly<Record<string, unknown>>,
  { model }: Derivation,
): Record<string, number> {
  const entities = indexModel(model).entities;
  const errors = Object.entries(given).flatMap(([name, count]) => {
    const pointer = `/counts/${name.replaceAll('~', '~0').replaceAll('/', '~1')}`;
    if (!entities.has(name)) return [{ pointer, code: 'unknown', message: `There is no entity ${name}.` }];
    const fits = typeof count === 'number' && Number.isInteger(count) && count >= 0 && count <= MOST_RECORDS;
    return fits
      ? []
      : [{ pointer, code: 'range', message: `Expected a whole number from 0 to ${MOST_RECORDS}.` }];
  });
  if (errors.length > 0) throw new ApiProblem('invalid', 'The counts do not fit.', { errors });
  const counts = given as Record<string, number>;
  const all = Object.values(counts).reduce((sum, count) => sum + count, 0);
  if (all > MOST_RECORDS)
    throw new ApiProblem(
      'invalid',
      `A mock holds at most ${MOST_RECORDS} records; these counts add up to ${all}.`,
    );
  return counts;
}
