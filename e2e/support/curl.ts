import { execFile } from 'node:child_process';
import { promisify } from 'node:util';

const run = promisify(execFile);

interface Answered {
  readonly status: number;
  /** JSON by its value; `null` where there is none. */
  readonly body: unknown;
}

/** Sends a request as a developer does in a terminal. */
export async function curl(method: string, url: string, body?: object): Promise<Answered> {
  const sent = body === undefined ? [] : ['-H', 'Content-Type: application/json', '-d', JSON.stringify(body)];
  const { stdout } = await run('curl', ['-sS', '-X', method, ...sent, '-w', '\n%{http_code}', url]);
  const end = stdout.lastIndexOf('\n');
  const text = stdout.slice(0, end);
  return { status: Number(stdout.slice(end + 1)), body: text === '' ? null : (JSON.parse(text) as unknown) };
}
