import type { ChangeSinceRelease, ChangeSummary } from '@isomeros/core/comparison';
import type { Choices, NamedExample } from '@isomeros/core/arrangement';
import type { KeptExampleResult } from '@isomeros/core/engine';
import type { GridRow } from '@isomeros/core/derivation';
import type { Identities, Model, ModelEdit } from '@isomeros/core/model';
import type { Diagnostic, StatementPlace } from '@isomeros/core/notation';
import type { DesignFigures } from '@isomeros/api';
import type { Assumption, Contract, Finding, Outline } from '@isomeros/core/contract';
import type { DesignReleases } from './baselineReleases.js';
import type { Impact } from './impact.js';
import type { LinkMap } from './linkMap.js';
import type { Way } from './way.js';

/** What a contract follows from. */
export interface Basis {
  readonly text: string;
  readonly identities: Identities;
  readonly choices: Choices;
  /** The name of the arrangement to derive. */
  readonly arrangement: string;
}

/** A basis as it travels, and as what is derived from it is remembered by: its JSON. */
export type BasisKey = string;

export const keyOfBasis = ({ text, identities, choices, arrangement }: Basis): BasisKey =>
  JSON.stringify({ text, identities, choices, arrangement } satisfies Basis);

/** What was read of a text. */
export interface ReadText {
  /** What could be read of it, errors or not. */
  readonly model: Model;
  readonly diagnostics: readonly Diagnostic[];
  /** By the identity of a statement. */
  readonly places: Readonly<Record<string, StatementPlace>>;
}

/** What follows from a text. */
export interface DerivedText extends Omit<ReadText, 'model'> {
  /** `null` where it is known already. */
  readonly model: Model | null;
  /** `null` where the text has errors. */
  readonly outline: Outline | null;
}

/** What follows from the whole contract; asked for when the typing pauses. */
export interface Review {
  /** What breaks a release comes first. */
  readonly findings: readonly Finding[];
  readonly assumptions: readonly Assumption[];
  readonly figures: DesignFigures;
  /** How many changes break the release that has to go on being served. */
  readonly breaking: number;
  readonly milliseconds: number;
}

/** A request with its answer, as they travel. */
export interface ExampleExchange {
  readonly requestHead: readonly string[];
  readonly requestBody: string | null;
  readonly statusLine: string;
  readonly responseHead: readonly string[];
  readonly responseBody: string | null;
}

/** A named example as it travels now; what is `null` could not be had, for the reason that is told. */
export interface NamedExchange {
  readonly exchange: ExampleExchange | null;
  readonly status: number | null;
  readonly why: string | null;
}

/** Something that might be done to a design. */
export type Step =
  | { readonly kind: 'edit'; readonly edit: ModelEdit }
  | { readonly kind: 'choices'; readonly choices: Choices };

export interface Consequence {
  readonly summary: ChangeSummary;
  /** What clients of the contract as it is could not do any more, in sentences: the first of so many. */
  readonly breaking: { readonly count: number; readonly first: readonly string[] };
  /** The path tree as it would be. */
  readonly outline: Outline;
}

interface OfBasis {
  readonly basis: BasisKey;
}

/** A basis of a design, which has releases. */
interface OfDesign extends OfBasis {
  readonly design: string;
}

/** What the workers that derive are asked. What a basis implies is derived from what could be read of its text. */
export type DerivationProtocol = Readonly<{
  /** `known`: the basis of which the model is known already. */
  derive: { question: OfBasis & { readonly known: BasisKey | null }; answer: DerivedText };
  outline: { question: OfBasis; answer: Outline };
  contract: { question: OfBasis; answer: Contract };
  /** What is found and assumed. */
  review: { question: OfDesign; answer: Review };
  /** What one statement, by its identity, implies. */
  implied: { question: OfBasis & { readonly statement: string }; answer: Impact };
  /** An operation run on seed records; `null` where there is no record to show it on. */
  example: { question: OfBasis & { readonly operation: string }; answer: ExampleExchange | null };
  /** The example of an operation, to be kept under a name. */
  keptExample: {
    question: OfBasis & { readonly operation: string; readonly id: string; readonly name: string };
    answer: KeptExampleResult;
  };
  /** A named example, sent to the records it holds. */
  namedExample: { question: OfBasis & { readonly example: NamedExample }; answer: NamedExchange };
  /** The graph of links from the entry, laid out. */
  linkMap: { question: OfBasis; answer: LinkMap };
  /** The shortest way by links between two resources, by their ids; `null` where there is none. */
  way: { question: OfBasis & { readonly from: string; readonly to: string }; answer: Way | null };
  /** What goes in and what comes out of the records of an entity, by its name. */
  grid: { question: OfBasis & { readonly entity: string }; answer: readonly GridRow[] };
  /** Compare with these releases from now on. */
  compareWith: { question: DesignReleases; answer: null };
  /** What changed since a release; `null` where it is not compared. */
  changes: { question: OfDesign & { readonly label: string }; answer: readonly ChangeSinceRelease[] | null };
  /** What would come and go by each of some steps; `null` where the text has errors, or would have some. */
  consequences: {
    question: OfDesign & { readonly steps: readonly Step[] };
    answer: readonly (Consequence | null)[];
  };
}>;
