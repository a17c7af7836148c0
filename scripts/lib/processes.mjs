import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { UserError } from './userError.mjs';

export const root = new URL('../..', import.meta.url).pathname.replace(/\/$/, '');

/** Processes we started that have not ended. */
const children = new Set();

/** Starts a process that is ended with us, whatever happens. */
export function startChild(command, args, options = {}) {
  const child = spawn(command, args, { cwd: root, ...options });
  children.add(child);
  const forget = () => children.delete(child);
  child.once('exit', forget);
  child.once('error', forget);
  return child;
}

/** Ends whatever is left of what we started. */
export const endChildren = () => Promise.all([...children].map((child) => stopProcess(child)));

export function killChildren() {
  for (const child of children) child.kill('SIGKILL');
}

/** Runs a command to its end with its output shown. Throws when it fails. */
export async function runCommand(command, args, options = {}) {
  const code = await exitCode(startChild(command, args, { stdio: 'inherit', ...options }));
  if (code !== 0) throw new UserError(`${command} ${args.join(' ')} ended with ${code}.`);
}

/** Runs a command to its end and returns its code and what it printed. */
export async function capture(command, args, options = {}) {
  const child = startChild(command, args, { stdio: ['ignore', 'pipe', 'pipe'], ...options });
  let output = '';
  child.stdout.on('data', (part) => (output += part));
  child.stderr.on('data', (part) => (output += part));
  return { code: await exitCode(child), output };
}

/** Whether a process has ended, by itself or by a signal. */
export const hasEnded = (child) => child.exitCode !== null || child.signalCode !== null;

export const pause = (ms) =>
  new Promise((resolve) => {
    setTimeout(resolve, ms).unref();
  });

/** The code with which a process ends; 127 when it could not be started, 128 when a signal ended it. */
export function exitCode(child) {
  return new Promise((resolve) => {
    if (hasEnded(child)) {
      resolve(child.exitCode ?? 128);
      return;
    }
    child.once('error', () => resolve(127));
    child.once('exit', (code) => resolve(code ?? 128));
  });
}

/** Asks a process we started to end, and insists after a while. */
export async function stopProcess(child, patienceMs = 15_000) {
  if (hasEnded(child)) return;
  const ended = exitCode(child);
  child.kill('SIGTERM');
  const timer = setTimeout(() => child.kill('SIGKILL'), patienceMs);
  await ended;
  clearTimeout(timer);
}

export function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
}

/** The first port from `first` on that nobody listens on, on loopback. */
export async function freePort(first) {
  for (let port = first; port < first + 200; port++) if (await isFree(port)) return port;
  throw new UserError(`No free port was found from ${first} to ${first + 199}.`);
}

function isFree(port) {
  return new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(false));
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
  });
}

/** Waits until a condition holds, asking again and again. Throws after `patienceMs`. */
export async function waitUntil(condition, what, patienceMs = 180_000) {
  const end = Date.now() + patienceMs;
  while (!(await condition())) {
    if (Date.now() > end) throw new UserError(`Gave up waiting for ${what}.`);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}
