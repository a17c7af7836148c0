import { arrangementOf, completeModel } from '@isomeros/core/arrangement';
import { compare } from '@isomeros/core/comparison';
import { figuresOf, type Contract, type Outline } from '@isomeros/core/contract';
import { derive, deriveOutline, exposureGrid } from '@isomeros/core/derivation';
import { exampleRecords, type Dataset } from '@isomeros/core/engine';
import { indexModel, type Model } from '@isomeros/core/model';
import { parse, type ParseResult } from '@isomeros/core/notation';
import type { Answerer } from '../../app/workers/protocol.js';
import { afterStep } from './afterStep.js';
import { BaselineReleases } from './baselineReleases.js';
import { derivedExample, exampleExchange, findingsOfExamples, namedExchange } from './example.js';
import { impactOf } from './impact.js';
import { linkMapOf } from './linkMap.js';
import type { Consequence, DerivationProtocol, Review, Basis, BasisKey, Step } from './protocol.js';
import { wayBetween } from './way.js';

/** So many bases are remembered with what was derived from them. */
const MOST_REMEMBERED = 4;

/** What follows from one basis, each part once it is asked for. */
class Derivation {
  private completed: Model | null = null;
  private shortened: Outline | null = null;
  private whole: Contract | null = null;
  private records: Dataset | null = null;

  constructor(
    readonly basis: Basis,
    readonly read: ParseResult,
  ) {}

  get isValid(): boolean {
    return this.read.diagnostics.length === 0;
  }

  get model(): Model {
    return (this.completed ??= completeModel(this.read.model, this.basis.choices));
  }

  get arrangement(): ReturnType<typeof arrangementOf> {
    return arrangementOf(this.basis.arrangement, this.basis.choices);
  }

  get outline(): Outline {
    return (this.shortened ??= deriveOutline(this.model, this.arrangement));
  }

  get contract(): Contract {
    return (this.whole ??= derive(this.model, this.arrangement));
  }

  /** The records that examples are run on, made with the first one. */
  get dataset(): Dataset {
    return (this.records ??= exampleRecords(this.model));
  }
}

/** Derives, and remembers what was derived by the basis it followed from. */
/** More sentences nobody reads before taking a step that can be taken back. */
const MOST_TOLD = 4;

export class Derivations {
  /** Asked for last comes last. */
  private readonly remembered = new Map<BasisKey, Derivation>();
  private readonly releases = new BaselineReleases();

  readonly answerer: Answerer<DerivationProtocol> = {
    derive: ({ basis, known }) => {
      const before = known === null ? undefined : this.remembered.get(known);
      const derivation = this.of(basis);
      const { model, diagnostics, places } = derivation.read;
      return {
        diagnostics,
        places: Object.fromEntries(places),
        model: before?.read === derivation.read ? null : model,
        outline: derivation.isValid ? derivation.outline : null,
      };
    },
    outline: ({ basis }) => this.of(basis).outline,
    contract: ({ basis }) => this.of(basis).contract,
    review: ({ basis, design }) => this.review(this.of(basis), design),
    implied: ({ basis, statement }) => {
      const { contract, model } = this.of(basis);
      return impactOf(contract, model, statement);
    },
    example: ({ basis, operation }) => {
      const { contract, model, dataset } = this.of(basis);
      return exampleExchange(contract, model, dataset, operation);
    },
    keptExample: ({ basis, operation, id, name }) => {
      const { contract, model, dataset } = this.of(basis);
      return derivedExample(contract, model, dataset, operation, { id, name });
    },
    namedExample: ({ basis, example }) => {
      const { contract, model } = this.of(basis);
      return namedExchange(contract, model, example);
    },
    linkMap: ({ basis }) => {
      const { contract, model } = this.of(basis);
      return linkMapOf(contract, model);
    },
    way: ({ basis, from, to }) => {
      const { contract, model, dataset } = this.of(basis);
      return wayBetween(contract, model, dataset, from, to);
    },
    grid: ({ basis, entity }) => {
      const { model, arrangement } = this.of(basis);
      return exposureGrid(model, arrangement, entity);
    },
    compareWith: (compared) => {
      this.releases.load(compared);
      return null;
    },
    changes: ({ basis, design, label }) => this.releases.changesSince(design, label, this.of(basis).contract),
    consequences: ({ basis, design, steps }) => this.consequences(this.of(basis), design, steps),
  };

  private of(key: BasisKey): Derivation {
    const known = this.remembered.get(key);
    this.remembered.delete(key);
    const derivation = known ?? this.begun(JSON.parse(key) as Basis);
    this.remembered.set(key, derivation);
    for (const oldest of this.remembered.keys()) {
      if (this.remembered.size <= MOST_REMEMBERED) break;
      this.remembered.delete(oldest);
    }
    return derivation;
  }

  /** A decision changes no text, and is seen the sooner for it: what was read of a text is read once. */
  private begun(basis: Basis): Derivation {
    const identities = JSON.stringify(basis.identities);
    const same = [...this.remembered.values()].find(
      ({ basis: other }) => other.text === basis.text && JSON.stringify(other.identities) === identities,
    );
    return new Derivation(basis, same?.read ?? parse(basis.text, basis.identities));
  }

  private review(derivation: Derivation, design: string): Review {
    const started = performance.now();
    const { basis, model, contract } = derivation;
    const { entities, relationships } = indexModel(model);
    const counts = { entities: entities.size, relationships: relationships.length };
    const broken = this.releases.broken(design, basis.arrangement, contract);
    return {
      findings: [
        ...broken,
        ...contract.findings,
        ...findingsOfExamples(contract, model, derivation.arrangement.examples),
      ],
      breaking: broken.length,
      assumptions: contract.assumptions,
      figures: { ...figuresOf(contract, basis.choices.answered), ...counts },
      milliseconds: performance.now() - started,
    };
  }

  private consequences(
    now: Derivation,
    design: string,
    steps: readonly Step[],
  ): readonly (Consequence | null)[] {
    if (!now.isValid) return steps.map(() => null);
    const { arrangement, choices } = now.basis;
    const withBroken = (contract: Contract): Contract => ({
      ...contract,
      findings: [...this.releases.broken(design, arrangement, contract), ...contract.findings],
    });
    const before = withBroken(now.contract);
    return steps.map((step): Consequence | null => {
      const next = afterStep(now.read.model, choices, step);
      if (next === null) return null;
      const model = completeModel(next.model, next.choices);
      const arranged = arrangementOf(arrangement, next.choices);
      const contract = withBroken(derive(model, arranged));
      const { summary, changes } = compare(
        { kind: 'arrangement', name: arrangement, contract: before },
        { kind: 'draft', contract },
      );
      const breaking = changes.filter(({ compatibility }) => compatibility === 'breaking');
      return {
        summary,
        breaking: {
          count: breaking.length,
          first: breaking.slice(0, MOST_TOLD).map(({ message }) => message),
        },
        outline: deriveOutline(model, arranged),
      };
    });
  }
}
