import type { DesignFigures } from '@isomeros/api';
import {
  arrangementOf,
  completeModel,
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
import { importModel, type Intake, type IntakeFormat } from '@isomeros/core/intake';
import type { Identities, Model } from '@isomeros/core/model';
import { parse, type Diagnostic } from '@isomeros/core/notation';
import { publish, type PublicationName } from '@isomeros/core/publication';
import { LRUCache } from 'lru-cache';
import { packText, unpackText } from '../database/compressedJson.js';
import { figuresOfDesign } from '../designs/figures.js';

/**
 * What is worked out in threads of their own, so that the server and its mocks go on answering: everything that
 * reads a text of a user or derives from one. Each function takes one argument and gives one result, both copied.
 */
export { newRow, withRename, withState, withText } from '../designs/designRows.js';

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

const KEPT = 4;
const latest = new LRUCache<string, Omit<Derivation, 'description'>>({ max: KEPT });

/** The latest derivations are kept: most are asked for again with another question. */
function derived(source: DerivationSource): Omit<Derivation, 'description'> {
  const key = JSON.stringify(source);
  const known = latest.get(key) ?? deriveAnew(source);
  latest.set(key, known);
  return known;
}

function deriveAnew({
  text,
  identities,
  choices,
  arrangement,
}: DerivationSource): Omit<Derivation, 'description'> {
  const model = completeModel(parse(text, identities).model, choices);
  return { model, contract: derive(model, arrangementOf(arrangement, choices)) };
}

/** What a mock says of itself. */
const describe = (contract: Contract): string => publish(contract, 'openapi.json');

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
  const model = completeModel(parse(source.text, source.identities).model, source.choices);
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

/** A document of what is implied. */
export const document = ({ as, ...source }: DerivationSource & { readonly as: PublicationName }): string =>
  publish(derived(source).contract, as);

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

/** A frozen contract with the model it was made from, as a mock serves it. */
export async function frozenDerivation({
  packed,
  text,
  identities,
  choices,
}: Omit<DerivationSource, 'arrangement'> & { readonly packed: Uint8Array }): Promise<Derivation> {
  const contract = await frozen(packed);
  const model = completeModel(parse(text, identities).model, choices);
  return { model, contract, description: describe(contract) };
}

/** A document of a frozen contract. */
export const frozenDocument = async ({
  packed,
  as,
}: {
  readonly packed: Uint8Array;
  readonly as: PublicationName;
}): Promise<string> => publish(await frozen(packed), as);

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

/** Reads a source as a model. */
export const readSource = ({
  format,
  source,
  name,
}: {
  readonly format: IntakeFormat;
  readonly source: string;
  readonly name: string;
}): Intake => importModel(format, source, name);
