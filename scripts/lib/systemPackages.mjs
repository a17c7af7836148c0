import { accessSync, constants } from 'node:fs';
import { capture, runCommand } from './processes.mjs';
import { say, UserError } from './say.mjs';

const FOLDERS = [
  ...(process.env.PATH ?? '').split(':'),
  '/usr/sbin',
  '/usr/local/sbin',
  '/usr/bin',
  '/usr/lib/postgresql/15/bin',
];

/** The path of a program, or `null` when it is not installed. */
export function findProgram(...names) {
  for (const name of names) {
    for (const folder of FOLDERS) {
      try {
        accessSync(`${folder}/${name}`, constants.X_OK);
        return `${folder}/${name}`;
      } catch {
        continue;
      }
    }
  }
  return null;
}

/** Installs Debian packages when a program of theirs is missing, where that is allowed. */
export async function ensureProgram(names, packages) {
  const found = findProgram(...names);
  if (found !== null) return found;
  const command = `apt-get update && apt-get install -y --no-install-recommends ${packages.join(' ')}`;
  const prefix = await installPrefix();
  if (prefix === null) {
    throw new UserError(
      `${names[0]} is missing, and this user may not install packages. Run this, then try again:\n\n  sudo sh -c '${command}'\n`,
    );
  }
  say(`${names[0]} is missing; installing ${packages.join(', ')} with apt-get.`);
  // What tests keep for a while is nothing for the system: its folder may be one from which nothing is run.
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  delete env.TMPDIR;
  const [program, ...before] = [...prefix, 'apt-get'];
  await runCommand(program, [...before, 'update', '-q'], { env });
  await runCommand(program, [...before, 'install', '-y', '-q', '--no-install-recommends', ...packages], {
    env,
  });
  const installed = findProgram(...names);
  if (installed === null)
    throw new UserError(`${packages.join(', ')} were installed, but ${names[0]} is still missing.`);
  return installed;
}

/** What to put before apt-get: nothing for root, sudo where it asks no password, `null` where neither works. */
async function installPrefix() {
  if (findProgram('apt-get') === null) return null;
  if (process.getuid?.() === 0) return [];
  if (findProgram('sudo') === null) return null;
  return (await capture('sudo', ['-n', 'true'])).code === 0 ? ['sudo', '-n'] : null;
}
