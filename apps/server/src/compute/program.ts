import type { DesignFigures } from '@isomeros/api';
import {
  arrangementOf,
  FIRST_ARRANGEMENT,
  type ChoiceProblem,
  type Choices,
  type Exposures,
} from '@isomeros/core/arrangement';
import { compare, type ContractChange } from '@isomeros/core/comparison';
import {
  fingerprintOf,
  readContract,
  writeContract,
  type Contract,
  type FingerprintColumn,
} from '@isomeros/core/contract';
import { derive, refusedExposures } from '@isomeros/core/derivation';
import {
  answer,
  importModel,
  wrongAnswers,
  type IntakeFormat,
  type WrongAnswer,
} from '@isomeros/core/intake';
import { withRecords, type IntakeWithRecords } from '@isomeros/core/initialRecords';
import type { Identities, Model } from '@isomeros/core/model';
import { parse, type Diagnostic } from '@isomeros/core/notation';
import { publicationSource } from '@isomeros/core/engine';
import {
  openApiDocument,
  PUBLICATION_FORMATS,
  PUBLICATION_NAMES,
  publish,
  type PublicationName,
  type PublicationSource,
} from '@isomeros/core/publication';
import { randomUUID } from 'node:crypto';
import type { MessagePort } from 'node:worker_threads';
import { LRUCache } from 'lru-cache';
import { packText, unpackText } from '../database/compressedJson.js';
import { figuresOfDesign } from '../designs/figures.js';
import { readModel } from '../designs/modelColumns.js';
import { compressRecords, type CompressedRecords } from './compressedRecords.js';

/**
 * What is worked out in threads of their own, so that the server and its mocks go on answering: everything that
 * reads a text of a user or derives from one. Each function takes one argument and gives one result, both copied.
 */
export { newRow, withRename, withState, withText } from '../designs/designRows.js';
export { designFile, designFileText } from './designFiles.js';

/** What a contract follows from. */
export interface DerivationSource {
  /** Without errors. */
  readonly text: string;
  readonly identities: Identities;
  readonly choices: Choices;
  /** The name of the arrangement. */
  readonly arrangement: string;
}

/** A sound model with the contract an arrangement implies, and its OpenAPI document as JSON text. */
export interface Derivation {
  readonly model: Model;
  readonly contract: Contract;
  readonly description: string;
}

export interface DesignOutcome {
  /** Of the text as it was last saved. */
  readonly diagnostics: readonly Diagnostic[];
  readonly figures: DesignFigures;
  readonly fingerprint: readonly FingerprintColumn[];
}

/** What is derived, with what its documents are written from. */
interface Derived extends Omit<Derivation, 'description'> {
  readonly published: PublicationSource;
}

const KEPT = 4;
const latest = new LRUCache<string, Derived>({ max: KEPT });

/** The latest derivations are kept: most are asked for again with another question. */
function derived(source: DerivationSource): Derived {
  const key = JSON.stringify(source);
  const known = latest.get(key) ?? deriveAnew(source);
  latest.set(key, known);
  return known;
}

function deriveAnew({ text, identities, choices, arrangement: name }: DerivationSource): Derived {
  const model = readModel({ text, identities, choices });
  const arrangement = arrangementOf(name, choices);
  const contract = derive(model, arrangement);
  return { model, contract, published: publicationSource(contract, model, arrangement.examples) };
}

/** What a mock says of itself; examples are in its published documents. */
const describe = (contract: Contract): string => JSON.stringify(openApiDocument(contract), null, 2);

/** What a design amounts to: the errors of its text, and the figures of the last sound one. */
export function outcome({ saved, ...source }: DerivationSource & { readonly saved: string }): DesignOutcome {
  const { model, contract } = derived(source);
  return {
    diagnostics: saved === source.text ? [] : parse(saved, source.identities).diagnostics,
    figures: figuresOfDesign(model, contract, source.choices),
    fingerprint: fingerprintOf(contract),
  };
}

/** What is newly chosen of what goes in and out of members, and the model does not allow. */
export function refused({
  before,
  ...source
}: DerivationSource & { readonly before: readonly Exposures[] }): readonly ChoiceProblem[] {
  const model = readModel(source);
  return refusedExposures(model, arrangementOf(source.arrangement, source.choices), before);
}

/** What a text of the notation amounts to with choices of its own, under the first arrangement. */
export function sample({
  text,
  choices,
}: Pick<DerivationSource, 'text' | 'choices'>): DesignOutcome & Pick<Model, 'name' | 'description'> {
  const source = { text, identities: {}, choices, arrangement: FIRST_ARRANGEMENT };
  const { name, description } = derived(source).model;
  return { ...outcome({ ...source, saved: text }), diagnostics: parse(text).diagnostics, name, description };
}

export function derivation(source: DerivationSource): Derivation {
  const { model, contract } = derived(source);
  return { model, contract, description: describe(contract) };
}

export const contractText = (source: DerivationSource): string => writeContract(derived(source).contract);

/** Which document, and where a mock serves what it is about, to be named in it. */
interface Wanted {
  readonly as: PublicationName;
  readonly mock: string | null;
}

/** A document of what is implied. */
export const document = ({ as, mock, ...source }: DerivationSource & Wanted): string =>
  publish(derived(source).published, as, { mock });

/** Every format with what it cannot say of what is implied. */
export const publications = (source: DerivationSource): readonly UnsaidIn[] =>
  unsaidIn(derived(source).published);

interface UnsaidIn {
  readonly format: PublicationName;
  readonly cannotSay: readonly string[];
}

const unsaidIn = (source: PublicationSource): readonly UnsaidIn[] =>
  PUBLICATION_NAMES.map((format) => ({ format, cannotSay: PUBLICATION_FORMATS[format].cannotSay(source) }));

/** A contract as a release keeps it. */
export interface Frozen {
  readonly packed: Buffer;
  readonly version: string;
  readonly operations: number;
  /** Findings that keep it from being released. */
  readonly errors: readonly string[];
}

export async function freeze(source: DerivationSource): Promise<Frozen> {
  const { contract } = derived(source);
  return {
    packed: await packText(writeContract(contract)),
    version: contract.version,
    operations: contract.operations.length,
    errors: contract.findings.flatMap(({ severity, message }) => (severity === 'error' ? [message] : [])),
  };
}

const frozen = async (packed: Uint8Array): Promise<Contract> => readContract(await unpackText(packed));

/** A frozen contract, and what it was made from. */
type FrozenSource = DerivationSource & { readonly packed: Uint8Array };

/** A frozen contract with the model it was made from, as a mock serves it. */
export async function frozenDerivation({
  packed,
  text,
  identities,
  choices,
}: FrozenSource): Promise<Derivation> {
  const contract = await frozen(packed);
  const model = readModel({ text, identities, choices });
  return { model, contract, description: describe(contract) };
}

/** What documents of a frozen contract are written from. */
async function frozenPublication(source: FrozenSource): Promise<PublicationSource> {
  const { model, contract } = await frozenDerivation(source);
  return publicationSource(contract, model, arrangementOf(source.arrangement, source.choices).examples);
}

/** A document of a frozen contract. */
export const frozenDocument = async ({ as, mock, ...source }: FrozenSource & Wanted): Promise<string> =>
  publish(await frozenPublication(source), as, { mock });

/** Every format with what it cannot say of a frozen contract. */
export const frozenPublications = async (source: FrozenSource): Promise<readonly UnsaidIn[]> =>
  unsaidIn(await frozenPublication(source));

/** What changed from a frozen contract to what is implied now. */
export async function changesSinceRelease({
  packed,
  label,
  ...source
}: DerivationSource & { readonly packed: Uint8Array; readonly label: string }): Promise<
  readonly ContractChange[]
> {
  const { contract } = derived(source);
  const release = { kind: 'release', label, contract: await frozen(packed) } as const;
  return compare(release, { kind: 'arrangement', name: source.arrangement, contract }).changes;
}

/** A source that is read, and how its questions are answered. */
interface Source {
  readonly format: IntakeFormat;
  readonly source: string;
  readonly name: string;
  /** What one record is, where the source does not say. */
  readonly record: string | undefined;
  readonly answers: Readonly<Record<string, unknown>>;
  /** Is told now and then how far the reading is, from 0 to 1. */
  readonly progress: MessagePort;
}

/** What became of a source; its records are compressed. */
export type ReadIntake = Omit<IntakeWithRecords, 'rows'>;

interface SourceRead {
  readonly intake: ReadIntake;
  readonly records: CompressedRecords;
  /** Answers to what is not asked. */
  readonly wrong: readonly WrongAnswer[];
}

/** Reads a source as a model with the records that fit it. */
export async function readSource({
  format,
  source,
  name,
  record,
  answers,
  progress,
}: Source): Promise<SourceRead> {
  const runtime = { now: Date.now(), uuid: randomUUID };
  const tell = (done: number): void => progress.postMessage(done);
  const first = importModel(format, source, name, { record, now: runtime.now, progress: tell });
  const wrong = wrongAnswers(first, answers);
  const chosen = wrong.length > 0 ? {} : (answers as Readonly<Record<number, number>>);
  const { rows, ...intake } = withRecords(answer(first, chosen), runtime);
  return { intake, records: await compressRecords(intake.model, rows), wrong };
}
