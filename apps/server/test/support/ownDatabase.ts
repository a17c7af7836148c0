import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ChildProcess } from 'node:child_process';

interface Started {
  readonly url: string;
  readonly stop: () => Promise<void>;
  readonly child: ChildProcess | null;
}

type Start = (folder: string, options: { readonly firstPort: number }) => Promise<Started>;

/** A MariaDB that one test has for itself, so that it can be killed. */
export class OwnDatabase {
  private constructor(
    private readonly start: Start,
    private readonly folder: string,
    private running: Started,
  ) {}

  static async start(): Promise<OwnDatabase> {
    const script = join(import.meta.dirname, '../../../../scripts/lib/database.mjs');
    const { startDatabase } = (await import(script)) as { startDatabase: Start };
    const folder = mkdtempSync(join(tmpdir(), 'isomeros-own-'));
    return new OwnDatabase(startDatabase, folder, await startDatabase(folder, { firstPort: 4_891 }));
  }

  get url(): string {
    return this.running.url;
  }

  /** Ends it as a power cut would. */
  async kill(): Promise<void> {
    const { child } = this.running;
    if (child === null) throw new Error('It was not started here.');
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await ended;
  }

  /** Starts it again on the same data and port. */
  async startAgain(): Promise<void> {
    this.running = await this.start(this.folder, { firstPort: 4_891 });
  }

  async remove(): Promise<void> {
    await this.running.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }
}
