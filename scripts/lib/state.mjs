import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';

/** What a state file says; nothing where there is none, or where it is broken, as after a power cut. */
export function readState(file) {
  if (!existsSync(file)) return {};
  try {
    const state = JSON.parse(readFileSync(file, 'utf8'));
    return typeof state === 'object' && state !== null ? state : {};
  } catch (error) {
    if (error instanceof SyntaxError) return {};
    throw error;
  }
}

/** Writes a state file whole or not at all. */
export function writeState(file, state) {
  const next = `${file}.next`;
  writeFileSync(next, `${JSON.stringify(state)}\n`, { mode: 0o600 });
  renameSync(next, file);
}
