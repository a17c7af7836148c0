import type { NamedExample } from '@isomeros/core/arrangement';
import type { KeptExampleResult } from '@isomeros/core/engine';
import type { ChangeSinceRelease } from '@isomeros/core/comparison';
import type { Contract, Outline } from '@isomeros/core/contract';
import type { GridRow } from '@isomeros/core/derivation';
import { unexpected } from '../../app/api/client.js';
import type { Port } from '../../app/workers/protocol.js';
import type { DesignReleases } from './baselineReleases.js';
import type { Impact } from './impact.js';
import type { LinkMap } from './linkMap.js';
import type { Way } from './way.js';
import {
  keyOfBasis,
  type Consequence,
  type DerivationProtocol,
  type ExampleExchange,
  type NamedExchange,
  type ReadText,
  type Review,
  type Basis,
  type BasisKey,
  type Step,
} from './protocol.js';

/** The whole contract is derived once so long no newer text came. */
const REVIEW_AFTER_MS = 120;

/** The text of a design as it is written, with what was decided besides. */
export interface WrittenDesign extends Basis {
  /** The id of the design. */
  readonly design: string;
  /** What to derive from while the text has errors and none without was derived before. */
  readonly validText: string;
}

export interface Derived {
  readonly reading: ReadText;
  /** `null` where the text has errors and the outline of the last valid one stays. */
  readonly outline: Outline | null;
}

export interface DerivationListener {
  readonly onDerived: (derived: Derived) => void;
  readonly onReviewed: (review: Review) => void;
  /** Something went wrong inside; what is known stays as it is. */
  readonly onFailed: (why: string) => void;
}

/** The last valid text of a design: what is asked about the whole contract is asked about it. */
interface Valid {
  readonly design: string;
  readonly text: string;
  readonly basis: BasisKey;
}

/**
 * Asks the workers that derive. One derives outlines and nothing else, so that what changes at every keystroke
 * never waits for what is asked about the whole contract, which is another's work, nor for the consequences of
 * what might be done, which is a third's. While the first is busy with one text only the newest of those that
 * come meanwhile is kept, so that it never falls behind the typing.
 */
export class DerivationService {
  private readonly outlines: Port<DerivationProtocol>;
  private readonly wholes: Port<DerivationProtocol>;
  private readonly futures: Port<DerivationProtocol>;
  /** The releases that are compared with, and which each worker was given. */
  private compared: DesignReleases | null = null;
  private readonly given = new Map<Port<DerivationProtocol>, DesignReleases>();
  private busy = false;
  private next: WrittenDesign | null = null;
  private latestKey: string | null = null;
  private valid: Valid | null = null;
  /** What was read of the newest text. */
  private read: { readonly basis: BasisKey; readonly reading: ReadText } | null = null;
  /** What was told last of the newest text, with the outline of the last valid one. */
  private told: { derived: Derived | null; review: Review | null } = { derived: null, review: null };
  private listener: DerivationListener | null = null;
  private later: ReturnType<typeof setTimeout> | undefined;

  constructor(open: () => Port<DerivationProtocol>) {
    this.outlines = open();
    this.wholes = open();
    this.futures = open();
  }

  /** Derives from a text; of the one that was derived last it tells again what is known. */
  derive(written: WrittenDesign, listener: DerivationListener): void {
    this.listener = listener;
    const key = `${written.design} ${keyOfBasis(written)}`;
    if (key === this.latestKey) {
      if (!this.busy) this.tellAgain(listener);
      return;
    }
    this.latestKey = key;
    this.next = written;
    if (!this.busy) void this.work();
  }

  /** The whole contract of the last valid text; `null` while there is none. */
  async contract(): Promise<Contract | null> {
    if (this.valid === null) return null;
    return Object.freeze(await this.wholes.ask('contract', { basis: this.valid.basis }));
  }

  async example(operation: string): Promise<ExampleExchange | null> {
    if (this.valid === null) return null;
    return this.wholes.ask('example', { basis: this.valid.basis, operation });
  }

  /** The example of an operation, to be kept under a name; `null` while there is no valid text. */
  async keptExample(operation: string, id: string, name: string): Promise<KeptExampleResult | null> {
    if (this.valid === null) return null;
    return this.wholes.ask('keptExample', { basis: this.valid.basis, operation, id, name });
  }

  async namedExample(example: NamedExample): Promise<NamedExchange | null> {
    return this.valid === null ? null : this.wholes.ask('namedExample', { basis: this.valid.basis, example });
  }

  /** The graph of links of the last valid text; `null` while there is none. */
  async linkMap(): Promise<LinkMap | null> {
    return this.valid === null ? null : this.wholes.ask('linkMap', { basis: this.valid.basis });
  }

  async way(from: string, to: string): Promise<Way | null> {
    return this.valid === null ? null : this.wholes.ask('way', { basis: this.valid.basis, from, to });
  }

  async grid(entity: string): Promise<readonly GridRow[]> {
    if (this.valid === null) return [];
    return this.wholes.ask('grid', { basis: this.valid.basis, entity });
  }

  async implied(statement: string): Promise<Impact | null> {
    if (this.valid === null) return null;
    return this.wholes.ask('implied', { basis: this.valid.basis, statement });
  }

  /** Compares with these releases from now on: what breaks one is among what is found. */
  async compareWith(releases: DesignReleases): Promise<void> {
    this.compared = releases;
    await this.review();
  }

  /** What changed since a release; `null` where it is not compared, or nothing is known yet. */
  async changesSince(label: string): Promise<readonly ChangeSinceRelease[] | null> {
    if (this.valid === null) return null;
    const { basis, design } = this.valid;
    return this.askComparing(this.wholes, 'changes', { basis, design, label });
  }

  /** What would come and go by each of some steps from the text as it is written. */
  consequences(
    { design, ...basis }: Basis & { readonly design: string },
    steps: readonly Step[],
  ): Promise<readonly (Consequence | null)[]> {
    return this.askComparing(this.futures, 'consequences', { basis: keyOfBasis(basis), design, steps });
  }

  /** Asks what depends on the releases: a worker is given them before its first such question, and after it failed. */
  private async askComparing<Kind extends 'review' | 'changes' | 'consequences'>(
    port: Port<DerivationProtocol>,
    kind: Kind,
    question: DerivationProtocol[Kind]['question'],
  ): Promise<DerivationProtocol[Kind]['answer']> {
    try {
      if (this.compared !== null && this.given.get(port) !== this.compared) {
        this.given.set(port, this.compared);
        await port.ask('compareWith', this.compared);
      }
      return await port.ask(kind, question);
    } catch (error) {
      this.given.delete(port);
      throw error;
    }
  }

  /** A page that begins anew knows nothing of what was told before. */
  private tellAgain(listener: DerivationListener): void {
    const { derived, review } = this.told;
    if (derived !== null) listener.onDerived(derived);
    if (review !== null) listener.onReviewed(review);
  }

  private async work(): Promise<void> {
    this.busy = true;
    while (this.next !== null) {
      const written = this.next;
      this.next = null;
      try {
        const derived = await this.derived(written);
        this.told = {
          derived: Object.freeze({
            ...derived,
            outline: derived.outline ?? this.told.derived?.outline ?? null,
          }),
          review: null,
        };
        this.listener?.onDerived(derived);
      } catch (error) {
        // The same text is asked about anew when it comes again.
        this.latestKey = null;
        this.listener?.onFailed(whyOf(error));
      }
      clearTimeout(this.later);
      this.later = setTimeout(() => void this.review(), REVIEW_AFTER_MS);
    }
    this.busy = false;
  }

  /** What follows from a text; while it has errors, from the last one of its design that had none. */
  private async derived(written: WrittenDesign): Promise<Derived> {
    const { design, text } = written;
    const basis = keyOfBasis(written);
    const answer = await this.outlines.ask('derive', { basis, known: this.read?.basis ?? null });
    const { diagnostics, places } = answer;
    const model = answer.model ?? this.read?.reading.model;
    if (model === undefined) throw new Error('The text was not read.');
    const reading = frozen({ model, diagnostics, places });
    this.read = { basis, reading };
    if (answer.outline !== null) {
      this.valid = { design, text, basis };
      return Object.freeze({ reading, outline: Object.freeze(answer.outline) });
    }
    const validText = this.valid?.design === design ? this.valid.text : written.validText;
    const before = keyOfBasis({ ...written, text: validText });
    if (this.valid?.design === design && this.valid.basis === before)
      return Object.freeze({ reading, outline: null });
    const outline = Object.freeze(await this.outlines.ask('outline', { basis: before }));
    this.valid = { design, text: validText, basis: before };
    return Object.freeze({ reading, outline });
  }

  private async review(): Promise<void> {
    if (this.valid === null) return;
    const { basis, design } = this.valid;
    try {
      const review = Object.freeze(await this.askComparing(this.wholes, 'review', { basis, design }));
      this.told.review = review;
      this.listener?.onReviewed(review);
    } catch (error) {
      this.listener?.onFailed(whyOf(error));
    }
  }
}

/** What went wrong, to be shown. */
export const whyOf = (error: unknown): string => unexpected(error).detail;

/** The store freezes what it is given through and through, unless it is frozen already; this is large. */
const frozen = ({ model, diagnostics, places }: ReadText): ReadText =>
  Object.freeze({ model: Object.freeze(model), diagnostics, places: Object.freeze(places) });
