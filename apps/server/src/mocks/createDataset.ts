import { hash } from 'node:crypto';
import {
  DIGEST_LENGTH,
  publicationSource,
  renumbered,
  type Counters,
  type Service,
} from '@isomeros/core/engine';
import { lazy, type Identities, type Model, type Row } from '@isomeros/core/model';
import { completeModel, keepChoices, readKeptChoices } from '@isomeros/core/arrangement';
import { parse } from '@isomeros/core/notation';
import { publish } from '@isomeros/core/publication';
import { seedSteps, type SeedPlan, type SeedResult } from '@isomeros/core/seeding';
import type { DatasetRow, MockRow } from '../database/tables.js';
import type { Derivation } from '../compute/program.js';
import type { ValidModel } from '../designs/designs.service.js';
import { errorCode } from '../errors.js';
import { ApiProblem } from '../http/problem.js';
import { inSlices, type Watching } from '../slices.js';

const PORT_TAKEN: ReadonlySet<string> = new Set(['EADDRINUSE', 'EACCES']);

/** Whether listening failed because the port is in use, or not ours to take. */
export const isPortTaken = (error: unknown): boolean => PORT_TAKEN.has(errorCode(error) ?? '');

export const serviceOf = (
  { model, contract, description }: Derivation,
  { secret }: MockRow,
  name: string,
): Service => ({
  name,
  model,
  contract,
  description: () => description,
  // Most mocks are never asked for it.
  reference: lazy(() => publish(publicationSource(contract, model, []), 'reference.html', { mock: null })),
  secret,
  digest: (text) => hash('sha256', text, 'base64url').slice(0, DIGEST_LENGTH),
});

/** The model of a dataset as it is stored. */
export type ModelColumns = Pick<
  DatasetRow,
  'modelText' | 'modelIdentities' | 'modelChoices' | 'modelRevision'
>;

export const modelColumns = (model: ValidModel): ModelColumns => ({
  modelText: model.text,
  modelIdentities: JSON.stringify(model.identities),
  modelChoices: keepChoices(model.choices),
  modelRevision: model.revision,
});

/** The model columns of a dataset alone. */
export const modelColumnsOf = ({
  modelText,
  modelIdentities,
  modelChoices,
  modelRevision,
}: ModelColumns): ModelColumns => ({ modelText, modelIdentities, modelChoices, modelRevision });

/** The sound model a dataset is stored with, whatever its design says by now. */
export const storedModel = (stored: ModelColumns): ValidModel => ({
  text: stored.modelText,
  identities: JSON.parse(stored.modelIdentities) as Identities,
  choices: readKeptChoices(stored.modelChoices),
  revision: stored.modelRevision,
});

/** The model that records were stored with. */
export function modelOf(stored: ModelColumns): Model {
  const { text, identities, choices } = storedModel(stored);
  return completeModel(parse(text, identities).model, choices);
}

/** What is to be served must be there. */
export function checkArrangements({ choices }: ValidModel, names: readonly string[]): void {
  const known = choices.arrangements.map(({ name }) => name);
  const missing = names.find((name) => !known.includes(name));
  if (missing === undefined) return;
  const message = `The design has no arrangement ${missing}; it has ${known.join(', ')}.`;
  throw new ApiProblem('invalid', message, {
    errors: [{ pointer: '/arrangements', code: 'unknown', message }],
  });
}

/** Whether a dataset is stored with another model than its design has by now. */
export function isOutdated(stored: ModelColumns, model: ValidModel): boolean {
  const newest = modelColumns(model);
  const choices = keepChoices(readKeptChoices(stored.modelChoices));
  return (
    stored.modelText !== newest.modelText ||
    stored.modelIdentities !== newest.modelIdentities ||
    choices !== newest.modelChoices
  );
}

/** Fresh records, made in slices. */
export async function makeRecords(
  { model }: Pick<Derivation, 'model'>,
  seedNumber: number,
  plan: SeedPlan,
  most: number,
  watching: Watching,
): Promise<SeedResult> {
  const options = { ...plan, seed: seedNumber, now: Date.now(), most };
  const made = await inSlices(seedSteps(model, options), watching);
  if (made.overflows)
    throw new ApiProblem('invalid', `A mock holds at most ${most} records; there would be more.`);
  return made;
}

/** Fresh records with numbers that no record had before. */
export async function numberedAfter(
  model: Model,
  made: SeedResult,
  before: Pick<Counters, 'rid'>,
  watching: Watching = {},
): Promise<{ readonly rows: readonly Row[]; readonly counters: Counters }> {
  const { rows, last } = await inSlices(renumbered(model, made.rows, before.rid), watching);
  return { rows, counters: { rid: last, attributes: made.counters } };
}
