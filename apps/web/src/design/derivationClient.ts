import type { Change } from '@isomeros/core/comparison';
import type { Contract } from '@isomeros/core/contract';
import type { GridRow } from '@isomeros/core/derivation';
import type { DesignReleases } from './heldReleases.js';
import type { Implied } from './implied.js';
import type {
  Answer,
  Derived,
  DerivedText,
  ExampleExchange,
  Question,
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

type WithoutNumber<T> = T extends unknown ? Omit<T, 'number'> : never;

/**
 * Asks the worker that derives. While it is busy with one text only the newest of those that come meanwhile
 * is kept, so that it never falls behind the typing.
 */
class DerivationClient {
  private readonly worker = new Worker(new URL('./derivation.worker.ts', import.meta.url), {
    type: 'module',
  });
  private readonly open = new Map<
    number,
    { readonly resolve: (answer: Answer) => void; readonly reject: (error: Error) => void }
  >();
  private number = 0;
  private busy = false;
  private lastRead: ReadText | null = null;
  private next: { readonly text: TextToDerive; readonly listener: DerivationListener } | null = null;
  /** Who is told what is found in the text that was derived last. */
  private listener: DerivationListener | null = null;
  private nextArrived: () => void = () => undefined;

  constructor() {
    this.worker.onmessage = ({ data }: MessageEvent<Answer>) => {
      this.open.get(data.number)?.resolve(data);
      this.open.delete(data.number);
    };
    this.worker.onerror = (event) => {
      const failed = new Error(`Derivation failed inside: ${event.message}`);
      for (const { reject } of this.open.values()) reject(failed);
      this.open.clear();
    };
  }

  derive(text: TextToDerive, listener: DerivationListener): void {
    this.next = { text, listener };
    this.listener = listener;
    this.nextArrived();
    if (!this.busy) void this.work();
  }

  async example(operation: string): Promise<ExampleExchange | null> {
    const answer = await this.ask({ kind: 'example', operation });
    return answer.kind === 'example' ? answer.example : null;
  }

  /** The whole contract of the last sound text; `null` while there is none. */
  async contract(): Promise<Contract | null> {
    const answer = await this.ask({ kind: 'contract' });
    const contract = answer.kind === 'contract' ? (JSON.parse(answer.json) as Contract | null) : null;
    return contract === null ? null : Object.freeze(contract);
  }

  /** Compares with these releases from now on: what breaks one is among what is found. */
  async hold(held: DesignReleases): Promise<void> {
    await this.ask({ kind: 'hold', held });
    if (this.listener !== null && !this.busy) await this.review(this.listener);
  }

  /** What changed from a release to the contract of the last sound text; `null` where there is no such release. */
  async changesSince(label: string): Promise<readonly Change[] | null> {
    const answer = await this.ask({ kind: 'changes', label });
    return answer.kind === 'changes' ? answer.changes : null;
  }

  async grid(entity: string): Promise<readonly GridRow[]> {
    const answer = await this.ask({ kind: 'grid', entity });
    return answer.kind === 'grid' ? answer.rows : [];
  }

  async implied(statement: string): Promise<Implied | null> {
    const answer = await this.ask({ kind: 'implied', statement });
    return answer.kind === 'implied' ? answer.implied : null;
  }

  private async work(): Promise<void> {
    this.busy = true;
    try {
      while (this.next !== null) {
        const { text, listener } = this.next;
        this.next = null;
        const answer = await this.ask({ kind: 'derive', ...text });
        if (answer.kind === 'derived')
          listener.onDerived(this.derived(JSON.parse(answer.json) as DerivedText));
        if (await this.isQuiet()) await this.review(listener);
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

  private async review({ onReviewed }: DerivationListener): Promise<void> {
    const answer = await this.ask({ kind: 'review' });
    const reviewed = answer.kind === 'reviewed' ? (JSON.parse(answer.json) as Reviewed | null) : null;
    if (reviewed !== null) onReviewed(Object.freeze(reviewed));
  }

  /** Whether no newer text comes for a moment. */
  private isQuiet(): Promise<boolean> {
    if (this.next !== null) return Promise.resolve(false);
    return new Promise((resolve) => {
      const later = setTimeout(() => resolve(true), REVIEW_AFTER_MS);
      this.nextArrived = () => {
        clearTimeout(later);
        resolve(false);
      };
    });
  }

  private ask(question: WithoutNumber<Question>): Promise<Answer> {
    const number = ++this.number;
    return new Promise((resolve, reject) => {
      this.open.set(number, { resolve, reject });
      this.worker.postMessage({ ...question, number });
    });
  }
}

/** The store freezes what it is given through and through, unless it is frozen already; this is large. */
const frozen = (read: ReadText): ReadText =>
  Object.freeze({ ...read, model: Object.freeze(read.model), places: Object.freeze(read.places) });

export const derivationClient = new DerivationClient();
