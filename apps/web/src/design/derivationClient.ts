import type { ContractDifference } from '@isomeros/core/contract';
import type { ModelEdit } from '@isomeros/core/model';
import type { Answer, Derived, ExampleExchange, Question, TextToDerive } from './workerMessages.js';

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
  private next: { readonly text: TextToDerive; readonly tell: (derived: Derived) => void } | null = null;

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

  derive(text: TextToDerive, tell: (derived: Derived) => void): void {
    this.next = { text, tell };
    if (!this.busy) void this.work();
  }

  async example(operation: string): Promise<ExampleExchange | null> {
    const answer = await this.ask({ kind: 'example', operation });
    return answer.kind === 'example' ? answer.example : null;
  }

  /** What the contract would gain and lose by an edit. */
  async consequence(edit: ModelEdit): Promise<ContractDifference | null> {
    const answer = await this.ask({ kind: 'consequence', edit });
    return answer.kind === 'consequence' ? answer.difference : null;
  }

  private async work(): Promise<void> {
    this.busy = true;
    try {
      while (this.next !== null) {
        const { text, tell } = this.next;
        this.next = null;
        const answer = await this.ask({ kind: 'derive', ...text });
        if (answer.kind === 'derived') tell(answer);
      }
    } finally {
      this.busy = false;
    }
  }

  private ask(question: WithoutNumber<Question>): Promise<Answer> {
    const number = ++this.number;
    return new Promise((resolve, reject) => {
      this.open.set(number, { resolve, reject });
      this.worker.postMessage({ ...question, number });
    });
  }
}

export const derivationClient = new DerivationClient();
