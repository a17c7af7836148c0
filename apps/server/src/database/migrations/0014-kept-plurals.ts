import { keepChoices, keepPlurals, readKeptChoices } from '@isomeros/core/arrangement';
import type { Identities } from '@isomeros/core/model';
import type { MigrationInterface, QueryRunner } from 'typeorm';
import { packJson, unpackJson } from '../compressedJson.js';

/** Designs that were kept before the table of nouns keep the plurals they had. */
export class KeptPlurals1796000000014 implements MigrationInterface {
  readonly name = 'KeptPlurals1796000000014';

  async up(runner: QueryRunner): Promise<void> {
    await keepDesigns(runner);
    await keepRevisions(runner);
    await keepDatasets(runner);
    await keepSnapshots(runner);
  }

  /** What was written is as true for a version before. */
  down(): Promise<void> {
    return Promise.resolve();
  }
}

async function keepDesigns(runner: QueryRunner): Promise<void> {
  const rows = (await runner.query('SELECT id, text, valid_text, identities, choices FROM designs')) as {
    readonly id: string;
    readonly text: string;
    readonly valid_text: string;
    readonly identities: string;
    readonly choices: string;
  }[];
  for (const { id, valid_text: validText, ...row } of rows) {
    const kept = keptState({ ...row, validText });
    if (kept !== null)
      await runner.query('UPDATE designs SET text = ?, valid_text = ?, choices = ? WHERE id = ?', [
        kept.text,
        kept.validText,
        kept.choices,
        id,
      ]);
  }
}

async function keepRevisions(runner: QueryRunner): Promise<void> {
  const keys = (await runner.query('SELECT design_id AS id, number FROM revisions')) as {
    readonly id: string;
    readonly number: number;
  }[];
  for (const { id, number } of keys) {
    const [row] = (await runner.query('SELECT state FROM revisions WHERE design_id = ? AND number = ?', [
      id,
      number,
    ])) as { readonly state: Buffer }[];
    if (row === undefined) continue;
    const state = await unpackJson<State & { readonly soundText?: string }>(row.state);
    // Its first format calls the sound text otherwise.
    const kept = keptState({ ...state, validText: state.soundText ?? state.validText });
    if (kept === null) continue;
    const { validText, ...others } = kept;
    const text = state.soundText === undefined ? { validText } : { soundText: validText };
    await runner.query('UPDATE revisions SET state = ? WHERE design_id = ? AND number = ?', [
      await packJson({ ...state, ...others, ...text }),
      id,
      number,
    ]);
  }
}

async function keepDatasets(runner: QueryRunner): Promise<void> {
  const rows = (await runner.query(
    `SELECT id, model_text AS modelText, model_identities AS modelIdentities, model_choices AS modelChoices
     FROM datasets`,
  )) as (StoredModel & { readonly id: string })[];
  for (const { id, ...row } of rows) {
    const kept = keptModel(row);
    if (kept !== null)
      await runner.query('UPDATE datasets SET model_text = ?, model_choices = ? WHERE id = ?', [
        kept.modelText,
        kept.modelChoices,
        id,
      ]);
  }
}

async function keepSnapshots(runner: QueryRunner): Promise<void> {
  const keys = (await runner.query('SELECT dataset_id AS id, name FROM snapshots')) as {
    readonly id: string;
    readonly name: string;
  }[];
  for (const { id, name } of keys) {
    const [row] = (await runner.query('SELECT state FROM snapshots WHERE dataset_id = ? AND name = ?', [
      id,
      name,
    ])) as { readonly state: Buffer }[];
    if (row === undefined) continue;
    const state = await unpackJson<{ readonly model: StoredModel }>(row.state);
    const kept = keptModel(state.model);
    if (kept !== null)
      await runner.query('UPDATE snapshots SET state = ? WHERE dataset_id = ? AND name = ?', [
        await packJson({ ...state, model: { ...state.model, ...kept } }),
        id,
        name,
      ]);
  }
}

interface State {
  readonly text: string;
  readonly validText: string;
  readonly identities: string;
  readonly choices: string;
}

interface StoredModel {
  readonly modelText: string;
  readonly modelIdentities: string;
  readonly modelChoices: string;
}

/** Format 4 of choices came with the table of nouns. */
const isOlder = (choices: string): boolean =>
  ((JSON.parse(choices) as { readonly format?: number }).format ?? 1) < 4;

/** What would be renamed, with the names it had; `null` where nothing would. */
function keptState({ text, validText, identities, choices }: State): State | null {
  if (!isOlder(choices)) return null;
  const known = { identities: JSON.parse(identities) as Identities, choices: readKeptChoices(choices) };
  const sound = keepPlurals({ ...known, text: validText });
  const draft = text === validText ? sound : keepPlurals({ ...sound, text });
  const kept = keepChoices(draft.choices);
  const isSame = sound.text === validText && draft.text === text && kept === keepChoices(known.choices);
  return isSame ? null : { text: draft.text, validText: sound.text, identities, choices: kept };
}

function keptModel({ modelText, modelIdentities, modelChoices }: StoredModel): StoredModel | null {
  const kept = keptState({
    text: modelText,
    validText: modelText,
    identities: modelIdentities,
    choices: modelChoices,
  });
  return kept === null ? null : { modelText: kept.text, modelIdentities, modelChoices: kept.choices };
}
