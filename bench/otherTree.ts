import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** This tree. */
export const here = fileURLToPath(new URL('..', import.meta.url));

const run = (folder: string, command: string, ...args: readonly string[]): string =>
  execFileSync(command, args, { cwd: folder, encoding: 'utf8', stdio: ['ignore', 'pipe', 'inherit'] }).trim();

/** A commit by its short name. */
export const commitName = (commit: string): string => run(here, 'git', 'rev-parse', '--short', commit);

/** Builds what runs of a tree; the pages where they are wanted. */
export function build(folder: string, withPages: boolean): void {
  run(folder, 'npx', '--no-install', 'tsc', '-b', 'packages/core', 'apps/server');
  if (withPages) run(join(folder, 'apps/web'), 'npx', '--no-install', 'vite', 'build', '--logLevel', 'warn');
}

/** A tree of another commit beside this one, built with the packages of its own lockfile. */
export function checkOut(
  commit: string,
  withPages = false,
): { readonly folder: string; readonly remove: () => void } {
  const folder = mkdtempSync(join(tmpdir(), 'isomeros-against-'));
  run(here, 'git', 'worktree', 'add', '--detach', '--force', folder, commit);
  const remove = (): void => {
    run(here, 'git', 'worktree', 'remove', '--force', folder);
    rmSync(folder, { recursive: true, force: true });
  };
  try {
    run(folder, 'npm', 'ci', '--no-audit', '--no-fund', '--loglevel=error');
    build(folder, withPages);
  } catch (error) {
    remove();
    throw error;
  }
  return { folder, remove };
}
