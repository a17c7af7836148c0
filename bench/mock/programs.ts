import { fork, type ChildProcess } from 'node:child_process';

/** Starts a program that tells when it is ready. */
export function start(
  path: string,
  args: readonly string[],
  environment: NodeJS.ProcessEnv = {},
): Promise<ChildProcess> {
  const isSource = path.endsWith('.ts');
  const child = fork(path, args, {
    execArgv: isSource ? ['--import', 'tsx'] : [],
    env: { ...process.env, ...environment },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  return new Promise((resolve, reject) => {
    child.once('message', () => {
      resolve(child);
    });
    child.once('exit', (code) => {
      reject(new Error(`${path} ended with ${code ?? 'a signal'}.`));
    });
  });
}

/** Ends a program, and waits until it has. */
export async function end(child: ChildProcess): Promise<void> {
  child.removeAllListeners('exit');
  const ended = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  await ended;
}

/** Sends something to the application, and reads what it answers. */
export async function ask<T>(url: string, body: unknown): Promise<T> {
  const headers = { 'Content-Type': 'application/json' };
  const response = await fetch(url, { method: 'POST', headers, body: JSON.stringify(body) });
  if (!response.ok) throw new Error(`${url} answered ${response.status}: ${await response.text()}`);
  return (await response.json()) as T;
}
