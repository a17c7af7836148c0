import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { capture, isAlive, root } from './processes.mjs';
import { readState, writeState } from './state.mjs';

export const stateFolder = process.env.ISOMEROS_FOLDER ?? join(root, '.isomeros');
const file = join(stateFolder, 'running.json');

/** The start that is running now, or `null`. A file left by a killed start does not count. */
export async function runningStart() {
  const { pid, url } = readState(file);
  if (!Number.isInteger(pid) || !isAlive(pid)) return null;
  const { output } = await capture('ps', ['-p', String(pid), '-o', 'args=']);
  return /scripts\/(start|dev)\.mjs/.test(output) ? { pid, url } : null;
}

export function writeRunning(url) {
  mkdirSync(stateFolder, { recursive: true, mode: 0o700 });
  writeState(file, { pid: process.pid, url });
}

export function clearRunning() {
  rmSync(file, { force: true });
}
