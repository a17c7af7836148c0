import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root, runCommand } from './processes.mjs';
import { say, UserError } from './say.mjs';

export function checkNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    throw new UserError(`Isomeros needs Node 20.19 or newer; this is ${process.versions.node}.`);
  }
}

/** Installs the packages of the lockfile, unless that was done already. */
export async function ensurePackages() {
  const stamp = join(root, 'node_modules', '.isomeros-lock');
  const wanted = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  say('Installing packages from the lockfile.');
  await runCommand('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  writeFileSync(stamp, wanted);
}

const SOURCES = [
  'packages',
  'apps/server',
  'apps/web',
  'docs/notation.md',
  'tsconfig.base.json',
  'package-lock.json',
];
const PASSED_OVER = new Set([
  'node_modules',
  'dist',
  'dist-test',
  'dist-types',
  'test',
  'tsconfig.tsbuildinfo',
]);

/** Builds everything that runs, unless nothing changed since it was built. */
export async function ensureBuilt() {
  const stamp = join(root, 'apps/web/dist', '.isomeros-sources');
  const hash = createHash('sha256');
  for (const source of SOURCES) addToHash(join(root, source), hash);
  const wanted = hash.digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  say('Building.');
  await runCommand('npx', ['--no-install', 'tsc', '-b', 'packages/core', 'apps/server', 'apps/web']);
  await runCommand('npx', ['--no-install', 'vite', 'build', '--logLevel', 'warn'], {
    cwd: join(root, 'apps/web'),
    // Whatever it is built for, as a test is: the pages are those that users get.
    env: { ...process.env, NODE_ENV: 'production' },
  });
  writeFileSync(stamp, wanted);
}

function addToHash(path, hash) {
  const found = statSync(path);
  if (!found.isDirectory()) {
    hash.update(`${path}\n`).update(readFileSync(path));
    return;
  }
  for (const name of readdirSync(path).sort()) if (!PASSED_OVER.has(name)) addToHash(join(path, name), hash);
}
