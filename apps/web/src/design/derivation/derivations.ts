import { arrangementOf, completeModel } from '@isomeros/core/arrangement';
import { compare } from '@isomeros/core/comparison';
import { figuresOf, type Contract, type Outline } from '@isomeros/core/contract';
import { derive, deriveOutline, exposureGrid } from '@isomeros/core/derivation';
import { indexModel, type Model } from '@isomeros/core/model';
import { parse, type ParseResult } from '@isomeros/core/notation';
import type { Answerer } from '../../app/workers/protocol.js';
import { afterStep } from './afterStep.js';
import { BaselineReleases } from './baselineReleases.js';
import { exampleExchange, type ExampleStage } from './example.js';
import { impactOf } from './impact.js';
import type {
  Consequence,
  DerivationProtocol,
  ExampleExchange,
  Review,
  Source,
  SourceKey,
  Step,
} from './protocol.js';

/** So many sources are remembered with what was derived from them. */
const MOST_REMEMBERED = 4;

/** What follows from one source, each part once it is asked for. */
class Derivation {
  private completed: Model | null = null;
  private shortened: Outline | null = null;
  private whole: Contract | null = null;
  private stage: ExampleStage | null = null;

  constructor(
    readonly source: Source,
    readonly read: ParseResult,
  ) {}

  get isValid(): boolean {
    return this.read.diagnostics.length === 0;
  }

  get model(): Model {
    return (this.completed ??= completeModel(this.read.model, this.source.choices));
  }

  get arrangement(): ReturnType<typeof arrangementOf> {
    return arrangementOf(this.source.arrangement, this.source.choices);
  }

  get outline(): Outline {
    return (this.shortened ??= deriveOutline(this.model, this.arrangement));
  }

  get contract(): Contract {
    return (this.whole ??= derive(this.model, this.arrangement));
  }

  /** The records that examples are run on are made with the first one. */
  example(operation: string): ExampleExchange | null {
    const stage = this.stage ?? { model: this.model, contract: this.contract, dataset: null };
    const example = exampleExchange(stage, operation);
    this.stage = example === null ? stage : { ...stage, dataset: example.dataset };
    return example?.exchange ?? null;
  }
}

/** Derives, and remembers what was derived by the source it followed from. */
export class Derivations {
  /** Asked for last comes last. */
  private readonly remembered = new Map<SourceKey, Derivation>();
  private readonly releases = new BaselineReleases();

  readonly answerer: Answerer<DerivationProtocol> = {
    derive: ({ source, known }) => {
      const before = known === null ? undefined : this.remembered.get(known);
      const derivation = this.of(source);
      const { model, diagnostics, places } = derivation.read;
      return {
        diagnostics,
        places: Object.fromEntries(places),
        model: before?.read === derivation.read ? null : model,
        outline: derivation.isValid ? derivation.outline : null,
      };
    },
    outline: ({ source }) => this.of(source).outline,
    contract: ({ source }) => this.of(source).contract,
    review: ({ source, design }) => this.review(this.of(source), design),
    implied: ({ source, statement }) => {
      const { contract, model } = this.of(source);
      return impactOf(contract, model, statement);
    },
    example: ({ source, operation }) => this.of(source).example(operation),
    grid: ({ source, entity }) => {
      const { model, arrangement } = this.of(source);
      return exposureGrid(model, arrangement, entity);
    },
    hold: (held) => {
      this.releases.load(held);
      return null;
    },
    changes: ({ source, design, label }) =>
      this.releases.changesSince(design, label, this.of(source).contract),
    consequences: ({ source, design, steps }) => this.consequences(this.of(source), design, steps),
  };

  private of(key: SourceKey): Derivation {
    const known = this.remembered.get(key);
    this.remembered.delete(key);
    const derivation = known ?? this.begun(JSON.parse(key) as Source);
    this.remembered.set(key, derivation);
    for (const oldest of this.remembered.keys()) {
      if (this.remembered.size <= MOST_REMEMBERED) break;
      this.remembered.delete(oldest);
    }
    return derivation;
  }

  /** A decision changes no text, and is seen the sooner for it: what was read of a text is read once. */
  private begun(source: Source): Derivation {
    const identities = JSON.stringify(source.identities);
    const same = [...this.remembered.values()].find(
      ({ source: other }) => other.text === source.text && JSON.stringify(other.identities) === identities,
    );
    return new Derivation(source, same?.read ?? parse(source.text, source.identities));
  }

  private review(derivation: Derivation, design: string): Review {
    const started = performance.now();
    const { source, model, contract } = derivation;
    const { entities, relationships } = indexModel(model);
    const counts = { entities: entities.size, relationships: relationships.length };
    const broken = this.releases.broken(design, source.arrangement, contract);
    return {
      findings: [...broken, ...contract.findings],
      breaking: broken.length,
      assumptions: contract.assumptions,
      figures: { ...figuresOf(contract, source.choices.answered), ...counts },
      milliseconds: performance.now() - started,
    };
  }

  private consequences(
    now: Derivation,
    design: string,
    steps: readonly Step[],
  ): readonly (Consequence | null)[] {
    if (!now.isValid) return steps.map(() => null);
    const { arrangement, choices } = now.source;
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
      return {
        summary: compare(
          { kind: 'arrangement', name: arrangement, contract: before },
          { kind: 'draft', contract },
        ).summary,
        outline: deriveOutline(model, arranged),
      };
    });
  }
}
