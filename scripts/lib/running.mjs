import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { capture, isAlive, root } from './processes.mjs';

export const stateFolder = process.env.ISOMEROS_FOLDER ?? join(root, '.isomeros');
const file = join(stateFolder, 'running.json');

/** The start that is running now, or `null`. A file left by a killed start does not count. */
export async function runningStart() {
  if (!existsSync(file)) return null;
  const { pid, url } = JSON.parse(readFileSync(file, 'utf8'));
  if (!isAlive(pid)) return null;
  const { output } = await capture('ps', ['-p', String(pid), '-o', 'args=']);
  return /scripts\/(start|dev)\.mjs/.test(output) ? { pid, url } : null;
}

export function writeRunning(url) {
  mkdirSync(stateFolder, { recursive: true, mode: 0o700 });
  writeFileSync(file, `${JSON.stringify({ pid: process.pid, url })}\n`);
}

export function clearRunning() {
  rmSync(file, { force: true });
}
