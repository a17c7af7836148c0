import type { ContractChange } from '@isomeros/core/comparison';
import type { Contract, Outline } from '@isomeros/core/contract';
import type { GridRow } from '@isomeros/core/derivation';
import type { DesignReleases } from './baselineReleases.js';
import type { Impact } from './impact.js';
import { WorkerPort, type WithoutNumber } from './workerPort.js';
import type {
  WorkerAnswer,
  Derived,
  DerivedText,
  ExampleExchange,
  WorkerQuestion,
  ReadText,
  Reviewed,
  TextToDerive,
} from './workerMessages.js';

/** The whole contract is derived once so long no newer text came. */
const REVIEW_AFTER_MS = 120;

export interface DerivationListener {
  readonly onDerived: (derived: Derived) => void;
  readonly onReviewed: (reviewed: Reviewed) => void;
}

/**
 * Asks the workers that derive. One derives outlines and nothing else, so that what changes at every keystroke
 * never waits for what is asked about the whole contract, which is another's work. While it is busy with one
 * text only the newest of those that come meanwhile is kept, so that it never falls behind the typing.
 */
class DerivationClient {
  private readonly outlines = new WorkerPort();
  private readonly wholes = new WorkerPort();
  private busy = false;
  private lastRead: ReadText | null = null;
  private next: { readonly text: TextToDerive; readonly listener: DerivationListener } | null = null;
  private latest: TextToDerive | null = null;
  private latestKey = '';
  /** The last text without errors: it may have passed while the worker of whole contracts was asked nothing. */
  private lastValid: TextToDerive | null = null;
  /** What that worker was given. */
  private readonly taken = new WeakSet<TextToDerive>();
  /** Who is told what is found in the newest text. */
  private listener: DerivationListener | null = null;
  private later: ReturnType<typeof setTimeout> | undefined;

  /** What was told last of the newest text, and the outline of the last one without errors. */
  private told: { derived: Derived | null; reviewed: Reviewed | null } = { derived: null, reviewed: null };
  private lastOutline: { readonly design: string; readonly outline: Outline } | null = null;

  /** Derives from a text; of the one that was derived last it tells again what is known. */
  derive(text: TextToDerive, listener: DerivationListener): void {
    this.listener = listener;
    const key = JSON.stringify(text);
    if (key === this.latestKey) {
      if (!this.busy) this.tellAgain(text.design, listener);
      return;
    }
    this.latestKey = key;
    this.latest = text;
    this.next = { text, listener };
    if (!this.busy) void this.work();
  }

  async example(operation: string): Promise<ExampleExchange | null> {
    const answer = await this.askWhole({ kind: 'example', operation });
    return answer.kind === 'example' ? answer.example : null;
  }

  /** The whole contract of the last sound text; `null` while there is none. */
  async contract(): Promise<Contract | null> {
    const answer = await this.askWhole({ kind: 'contract' });
    const contract = answer.kind === 'contract' ? (JSON.parse(answer.json) as Contract | null) : null;
    return contract === null ? null : Object.freeze(contract);
  }

  /** Compares with these releases from now on: what breaks one is among what is found. */
  async hold(held: DesignReleases): Promise<void> {
    await this.wholes.ask({ kind: 'hold', held });
    if (this.latest !== null) await this.review();
  }

  /** What changed from a release to the contract of the last sound text; `null` where there is no such release. */
  async changesSince(label: string): Promise<readonly ContractChange[] | null> {
    const answer = await this.askWhole({ kind: 'changes', label });
    return answer.kind === 'changes' ? answer.changes : null;
  }

  async grid(entity: string): Promise<readonly GridRow[]> {
    const answer = await this.askWhole({ kind: 'grid', entity });
    return answer.kind === 'grid' ? answer.rows : [];
  }

  async implied(statement: string): Promise<Impact | null> {
    const answer = await this.askWhole({ kind: 'implied', statement });
    return answer.kind === 'implied' ? answer.implied : null;
  }

  /** A page that begins anew knows nothing of what was told before. */
  private tellAgain(design: string, listener: DerivationListener): void {
    const { derived, reviewed } = this.told;
    const last = this.lastOutline?.design === design ? this.lastOutline.outline : null;
    if (derived !== null)
      listener.onDerived(derived.outline === null ? Object.freeze({ ...derived, outline: last }) : derived);
    if (reviewed !== null) listener.onReviewed(reviewed);
  }

  private async work(): Promise<void> {
    this.busy = true;
    try {
      while (this.next !== null) {
        const { text, listener } = this.next;
        this.next = null;
        const answer = await this.outlines.ask({ kind: 'derive', ...text });
        if (answer.kind === 'derived') {
          const derived = this.derived(JSON.parse(answer.json) as DerivedText);
          this.told = { derived, reviewed: null };
          if (derived.diagnostics.length === 0) this.lastValid = text;
          if (derived.outline !== null) this.lastOutline = { design: text.design, outline: derived.outline };
          listener.onDerived(derived);
        }
        clearTimeout(this.later);
        this.later = setTimeout(() => void this.review(), REVIEW_AFTER_MS);
      }
    } finally {
      this.busy = false;
    }
  }

  /** The answer with the reading of the text it belongs to. */
  private derived({ read, outline, milliseconds }: DerivedText): Derived {
    if (read !== null) this.lastRead = frozen(read);
    if (this.lastRead === null) throw new Error('No text was read yet.');
    return Object.freeze({
      ...this.lastRead,
      outline: outline === null ? null : Object.freeze(outline),
      milliseconds,
    });
  }

  private async review(): Promise<void> {
    const answer = await this.askWhole({ kind: 'review' });
    const reviewed = answer.kind === 'reviewed' ? (JSON.parse(answer.json) as Reviewed | null) : null;
    if (reviewed === null) return;
    this.told.reviewed = Object.freeze(reviewed);
    this.listener?.onReviewed(reviewed);
  }

  /** Asks about the whole contract of the newest text, or of the last one without errors. */
  private askWhole(question: WithoutNumber<WorkerQuestion>): Promise<WorkerAnswer> {
    for (const text of [this.lastValid, this.latest]) {
      if (text === null || this.taken.has(text)) continue;
      this.taken.add(text);
      void this.wholes.ask({ kind: 'take', ...text });
    }
    return this.wholes.ask(question);
  }
}

/** The store freezes what it is given through and through, unless it is frozen already; this is large. */
const frozen = (read: ReadText): ReadText =>
  Object.freeze({ ...read, model: Object.freeze(read.model), places: Object.freeze(read.places) });

export const derivationClient = new DerivationClient();
