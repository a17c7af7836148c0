import { parentPort, workerData } from 'node:worker_threads';
import { takeIn, type IntakeFormat } from '@isomeros/core/intake';

/** What the thread is asked to read. */
export interface IntakeTask {
  readonly format: IntakeFormat;
  readonly source: string;
  readonly name: string;
}

const { format, source, name } = workerData as IntakeTask;
parentPort?.postMessage(takeIn(format, source, name));
