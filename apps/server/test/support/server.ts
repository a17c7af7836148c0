import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';

/** The built program of the server. */
export const SERVER_PROGRAM = join(import.meta.dirname, '../../dist/main.js');

/** The built server in a process of its own, on a free port. */
export class ServerProcess {
  private constructor(
    private readonly child: ChildProcess,
    readonly url: string,
  ) {}

  static start(
    databaseUrl: string,
    environment: Readonly<Record<string, string>> = {},
  ): Promise<ServerProcess> {
    const env = { ...process.env, ISOMEROS_DATABASE_URL: databaseUrl, ISOMEROS_PORT: '5800', ...environment };
    const child = spawn(process.execPath, [SERVER_PROGRAM], { env, stdio: ['ignore', 'pipe', 'pipe'] });
    return new Promise((resolve, reject) => {
      let output = '';
      const read = (part: Buffer): void => {
        output += part.toString();
        const url = /Isomeros is at (\S+?)\/(\?\S*)?\s/.exec(output)?.[1];
        if (url !== undefined) resolve(new ServerProcess(child, url));
      };
      child.stdout.on('data', read);
      child.stderr.on('data', read);
      child.once('exit', (code) => {
        reject(new Error(`The server ended with ${String(code)}:\n${output}`));
      });
    });
  }

  /** Ends the process at once, as a power cut would, or in good order. */
  async end(signal: 'SIGKILL' | 'SIGTERM'): Promise<void> {
    const ended = new Promise<void>((resolve) => {
      if (this.child.exitCode !== null || this.child.signalCode !== null) resolve();
      else this.child.once('exit', () => resolve());
    });
    this.child.kill(signal);
    await ended;
  }

  async get(path: string): Promise<unknown> {
    const response = await fetch(this.url + path);
    if (!response.ok) throw new Error(`GET ${path} answered ${response.status}`);
    return response.json();
  }

  post(path: string, body?: unknown): Promise<Response> {
    return sendJson(this.url + path, 'POST', body);
  }
}

export function sendJson(
  url: string,
  method: string,
  body?: unknown,
  headers: Readonly<Record<string, string>> = {},
): Promise<Response> {
  return body === undefined
    ? fetch(url, { method, headers })
    : fetch(url, {
        method,
        headers: { 'Content-Type': 'application/json', ...headers },
        body: JSON.stringify(body),
      });
}

/** Asks until the condition holds. */
export async function eventually<T>(
  ask: () => Promise<T | null>,
  what: string,
  patienceMs = 120_000,
): Promise<T> {
  for (const end = Date.now() + patienceMs; Date.now() < end;) {
    const answer = await ask();
    if (answer !== null) return answer;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`Gave up waiting for ${what}.`);
}
