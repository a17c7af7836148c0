import type { IntakeRequest, IntakeResponse, ReadSource } from './intakeMessages.js';

/** Reads one source in a worker of its own, so that it can be ended at any moment. */
export class IntakeReading {
  private readonly worker = new Worker(new URL('./intake.worker.ts', import.meta.url), { type: 'module' });
  private lastProgress = 0;

  constructor(
    onRead: (read: ReadSource) => void,
    onProgress: (done: number) => void,
    onFailed: (why: string) => void,
  ) {
    this.worker.onmessage = ({ data }: MessageEvent<IntakeResponse>) => {
      if (data.kind === 'read') onRead(data);
      else if (data.done - this.lastProgress >= 0.01) {
        this.lastProgress = data.done;
        onProgress(data.done);
      }
    };
    this.worker.onerror = (event) => onFailed(`Reading failed inside: ${event.message}`);
  }

  ask(question: IntakeRequest): void {
    this.lastProgress = 0;
    this.worker.postMessage(question);
  }

  end(): void {
    this.worker.terminate();
  }
}
