import type { WorkerAnswer, WorkerQuestion } from './workerMessages.js';

export type WithoutNumber<T> = T extends unknown ? Omit<T, 'number'> : never;

interface Waiting {
  readonly resolve: (answer: WorkerAnswer) => void;
  readonly reject: (error: Error) => void;
}

/** A worker that derives, asked one question at a time; it answers in the order it is asked. */
export class WorkerPort {
  private readonly worker = new Worker(new URL('./derivation.worker.ts', import.meta.url), {
    type: 'module',
  });
  private readonly open = new Map<number, Waiting>();
  private number = 0;

  constructor() {
    this.worker.onmessage = ({ data }: MessageEvent<WorkerAnswer>) => {
      this.open.get(data.number)?.resolve(data);
      this.open.delete(data.number);
    };
    this.worker.onerror = (event) => {
      const failed = new Error(`Derivation failed inside: ${event.message}`);
      for (const { reject } of this.open.values()) reject(failed);
      this.open.clear();
    };
  }

  ask(question: WithoutNumber<WorkerQuestion>): Promise<WorkerAnswer> {
    const number = ++this.number;
    return new Promise((resolve, reject) => {
      this.open.set(number, { resolve, reject });
      this.worker.postMessage({ ...question, number });
    });
  }
}
