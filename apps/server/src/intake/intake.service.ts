import { Worker } from 'node:worker_threads';
import { Inject, Injectable } from '@nestjs/common';
import { MAX_INTAKE_BYTES, type Intake, type IntakeFormat } from '@isomeros/core/intake';
import { ApiProblem } from '../http/problem.js';
import { SETTINGS, type ServerSettings } from '../settings.js';
import type { IntakeTask } from './worker.js';

const LIMIT_MS = 30_000;
const MOST_AT_ONCE = 2;
const MEMORY_MIB = 512;

/** Reads sources as models in threads of their own, so that the server goes on answering. */
@Injectable()
export class IntakeService {
  private running = 0;
  private readonly waiting: (() => void)[] = [];

  constructor(@Inject(SETTINGS) private readonly settings: ServerSettings) {}

  /** Reads a source; the signal ends the reading. */
  async read(format: IntakeFormat, source: string, name: string, signal: AbortSignal): Promise<Intake> {
    const bytes = Buffer.byteLength(source);
    if (bytes > MAX_INTAKE_BYTES)
      throw new ApiProblem('too-large', `The source has ${bytes} bytes; the limit is ${MAX_INTAKE_BYTES}.`);
    await this.turn();
    try {
      const intake = await this.inThread({ format, source, name }, signal);
      if (intake.problem !== null) throw new ApiProblem('unsound', intake.problem);
      return intake;
    } finally {
      this.running--;
      this.waiting.shift()?.();
    }
  }

  private async turn(): Promise<void> {
    while (this.running >= MOST_AT_ONCE)
      await new Promise<void>((resolve) => {
        this.waiting.push(resolve);
      });
    this.running++;
  }

  private async inThread(task: IntakeTask, signal: AbortSignal): Promise<Intake> {
    const late = AbortSignal.timeout(LIMIT_MS);
    const ended = AbortSignal.any([signal, late]);
    if (ended.aborted) throw endProblem(late);
    const worker = new Worker(this.settings.intakeWorker, {
      workerData: task,
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_MIB },
    });
    return new Promise<Intake>((resolve, reject) => {
      const end = (): void => {
        void worker.terminate();
        reject(endProblem(late));
      };
      ended.addEventListener('abort', end, { once: true });
      worker.once('message', (intake: Intake) => resolve(intake));
      worker.once('error', (error) => reject(error));
      worker.once('exit', () => {
        ended.removeEventListener('abort', end);
        reject(new Error('The reading thread ended without an answer.'));
      });
    });
  }
}

const endProblem = (late: AbortSignal): ApiProblem =>
  late.aborted
    ? new ApiProblem('unsound', `Reading the source took longer than ${LIMIT_MS / 1_000} s.`)
    : new ApiProblem('bad-request', 'The client went away.');
