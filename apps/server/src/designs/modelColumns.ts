import { completeModel, keepChoices, readKeptChoices, type Choices } from '@isomeros/core/arrangement';
import type { Identities, Model } from '@isomeros/core/model';
import { parse } from '@isomeros/core/notation';
import type { DatasetRow, DesignRow } from '../database/tables.js';
import { choicesOf, readIdentities } from './designRows.js';

/** A sound model as a mock takes it over. */
export interface ValidModel {
  readonly text: string;
  readonly identities: Identities;
  readonly choices: Choices;
  readonly revision: number;
}

/** The last sound model of a design. */
export const validModelOf = (row: DesignRow): ValidModel => ({
  text: row.validText,
  identities: readIdentities(row),
  choices: choicesOf(row),
  revision: row.revision,
});

/** A sound model as it is stored with records that satisfy it. */
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

/** The model columns alone. */
export const modelColumnsOf = ({
  modelText,
  modelIdentities,
  modelChoices,
  modelRevision,
}: ModelColumns): ModelColumns => ({ modelText, modelIdentities, modelChoices, modelRevision });

/** The sound model that records are stored with, whatever their design says by now. */
export const storedModel = (stored: ModelColumns): ValidModel => ({
  text: stored.modelText,
  identities: JSON.parse(stored.modelIdentities) as Identities,
  choices: readKeptChoices(stored.modelChoices),
  revision: stored.modelRevision,
});

/** What a sound text says, with what was decided besides it. */
export const readModel = ({ text, identities, choices }: Omit<ValidModel, 'revision'>): Model =>
  completeModel(parse(text, identities).model, choices);

/** The model that records were stored with. */
export const modelOf = (stored: ModelColumns): Model => readModel(storedModel(stored));

/** Whether records are stored with another model than their design has by now. */
export function isOutdated(stored: ModelColumns, model: ValidModel): boolean {
  const newest = modelColumns(model);
  const choices = keepChoices(readKeptChoices(stored.modelChoices));
  return (
    stored.modelText !== newest.modelText ||
    stored.modelIdentities !== newest.modelIdentities ||
    choices !== newest.modelChoices
  );
}
