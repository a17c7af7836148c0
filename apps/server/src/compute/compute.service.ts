import { Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { errorCode } from '../errors.js';
import { clientGone } from '../http/clientAbort.js';
import { ApiProblem } from '../http/problem.js';
import { SERVER_SETTINGS, type ServerSettings } from '../settings.js';
import type * as program from './program.js';

type Program = typeof program;
type TaskName = keyof Program;

const LIMIT_MS = 30_000;
const THREADS = 2;
const IDLE_MS = 60_000;
const MEMORY_MIB = 1_024;
/** Contracts and documents are many small objects that live on: fewer, larger rounds of collection suit them. */
const YOUNG_MIB = 96;

interface RunOptions {
  /** What is said where it takes more than may be. */
  readonly refusal: string;
  /** Ends it where whoever asked is gone. */
  readonly gone?: AbortSignal;
  readonly transferList?: readonly MessagePort[];
}

/** Works things out in threads of their own, each within its time and memory. */
@Injectable()
export class ComputeService implements OnModuleDestroy {
  private readonly pool: Piscina;
  /** Sources may take long; what is asked of designs does not wait for them. */
  private readonly sources: Piscina;

  constructor(@Inject(SERVER_SETTINGS) { computeProgram }: ServerSettings) {
    const options = {
      filename: computeProgram,
      maxThreads: THREADS,
      idleTimeout: IDLE_MS,
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_MIB, maxYoungGenerationSizeMb: YOUNG_MIB },
      // A thread that is ended while it requires an ES module ends the whole process in Node 20; imported, it does not.
      execArgv: ['--no-experimental-require-module'],
    };
    this.pool = new Piscina({ ...options, minThreads: 1 });
    this.sources = new Piscina({ ...options, minThreads: 0 });
  }

  async onModuleDestroy(): Promise<void> {
    await Promise.all([this.pool.destroy(), this.sources.destroy()]);
  }

  /** What a function of the program gives. A problem where it takes longer, or more, than may be. */
  run<Name extends TaskName>(
    name: Name,
    task: Parameters<Program[Name]>[0],
  ): Promise<Awaited<ReturnType<Program[Name]>>> {
    return this.runIn(this.pool, name, task, { refusal: 'The model implies more than can be derived here' });
  }

  /** The same of what may be large, which nothing else waits for. */
  runLong<Name extends TaskName>(
    name: Name,
    task: Parameters<Program[Name]>[0],
    options: Omit<RunOptions, 'transferList'>,
  ): Promise<Awaited<ReturnType<Program[Name]>>> {
    return this.runIn(this.sources, name, task, options);
  }

  /** Reads a source, and tells now and then how far it is, from 0 to 1; the signal ends the reading. */
  async readSource(
    task: Omit<Parameters<Program['readSource']>[0], 'progress'>,
    signal: AbortSignal,
    onProgress: (done: number) => void,
  ): Promise<Awaited<ReturnType<Program['readSource']>>> {
    const { port1: own, port2: progress } = new MessageChannel();
    own.on('message', onProgress);
    try {
      return await this.runIn(
        this.sources,
        'readSource',
        { ...task, progress },
        { refusal: 'The source is more than can be read here', gone: signal, transferList: [progress] },
      );
    } finally {
      own.close();
    }
  }

  private async runIn<Name extends TaskName>(
    pool: Piscina,
    name: Name,
    task: Parameters<Program[Name]>[0],
    { refusal, gone, transferList = [] }: RunOptions,
  ): Promise<Awaited<ReturnType<Program[Name]>>> {
    const late = AbortSignal.timeout(LIMIT_MS);
    const signal = gone === undefined ? late : AbortSignal.any([gone, late]);
    try {
      return (await pool.run(task, { name, signal, transferList: [...transferList] })) as Awaited<
        ReturnType<Program[Name]>
      >;
    } catch (error) {
      if (gone?.aborted === true) throw clientGone();
      if (late.aborted)
        throw new ApiProblem('unsound', `${refusal}: it took longer than ${LIMIT_MS / 1_000} s.`);
      if (errorCode(error) === 'ERR_WORKER_OUT_OF_MEMORY')
        throw new ApiProblem('unsound', `${refusal}: it took more than ${MEMORY_MIB} MiB of memory.`);
      throw error;
    }
  }
}
