import type { AnswerMessage, Port, WorkerProtocol, TellProgress } from './protocol.js';

interface Waiting {
  readonly resolve: (answer: unknown) => void;
  readonly reject: (error: Error) => void;
  readonly progress: TellProgress | undefined;
}

/** Asks a worker, which is begun with the first question, and begun anew after it broke down. */
export class WorkerPort<P extends WorkerProtocol> implements Port<P> {
  private worker: Worker | null = null;
  private readonly open = new Map<number, Waiting>();
  private number = 0;

  constructor(private readonly begin: () => Worker) {}

  ask<Kind extends keyof P & string>(
    kind: Kind,
    question: P[Kind]['question'],
    progress?: TellProgress,
  ): Promise<P[Kind]['answer']> {
    const number = ++this.number;
    return new Promise((resolve, reject) => {
      this.open.set(number, { resolve, reject, progress });
      this.worker ??= this.begun();
      this.worker.postMessage({ number, kind, question });
    });
  }

  end(): void {
    this.worker?.terminate();
    this.worker = null;
    this.open.clear();
  }

  private begun(): Worker {
    const worker = this.begin();
    worker.onmessage = ({ data }: MessageEvent<AnswerMessage>) => {
      const waiting = this.open.get(data.number);
      if (data.kind === 'progress') {
        waiting?.progress?.(data.done);
        return;
      }
      this.open.delete(data.number);
      if (data.kind === 'answer') waiting?.resolve(JSON.parse(data.json));
      else waiting?.reject(new Error(data.why));
    };
    worker.onerror = (event) => {
      const waiting = [...this.open.values()];
      this.end();
      for (const { reject } of waiting) reject(new Error(event.message || 'The worker broke down.'));
    };
    return worker;
  }
}
