import { chownSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { capture, hasEnded, startChild, stopProcess, waitUntil } from './processes.mjs';
import { UserError } from './say.mjs';
import { ensureProgram } from './systemPackages.mjs';

const PACKAGES = ['postgresql-15'];
/** Root may not run the server; the package makes this user. */
const SERVER_USER = 'postgres';
const USER = 'isomeros';

/** What the test wants of PostgreSQL, installed where it is missing. */
export const ensurePostgres = () => ensureProgram(['postgres'], PACKAGES);

/**
 * A PostgreSQL for one run of tests, in a folder that is removed afterwards, which listens at a socket there and
 * nowhere else. Returns its address, as psql takes it, and how to stop it.
 */
export async function startTestPostgres() {
  const server = await ensurePostgres();
  const psql = await ensureProgram(['psql'], PACKAGES);
  const initdb = await ensureProgram(['initdb'], PACKAGES);
  const folder = mkdtempSync(join(tmpdir(), 'isomeros-postgres-'));
  const who = await serverUser();
  if (who.uid !== undefined) chownSync(folder, who.uid, who.gid);
  const data = join(folder, 'data');
  const options = ['-D', data, '-U', USER, '--auth=trust', '--encoding=UTF8', '--locale=C', '--no-sync'];
  const made = await capture(initdb, options, { cwd: folder, ...who });
  if (made.code !== 0) throw new UserError(`PostgreSQL's data folder could not be made:\n${made.output}`);
  const settings = ['listen_addresses=', `unix_socket_directories=${folder}`, 'fsync=off'];
  const child = startChild(server, ['-D', data, ...settings.flatMap((one) => ['-c', one])], {
    cwd: folder,
    stdio: 'ignore',
    ...who,
  });
  const stop = async () => {
    await stopProcess(child, 60_000);
    rmSync(folder, { recursive: true, force: true });
  };
  const asked = ['-X', '-q', '-h', folder, '-U', USER, '-d', 'postgres', '-c', 'SELECT 1'];
  try {
    await waitUntil(async () => {
      if (hasEnded(child)) throw new UserError('PostgreSQL ended while it started.');
      return (await capture(psql, asked)).code === 0;
    }, 'PostgreSQL to answer');
  } catch (error) {
    await stop();
    throw error;
  }
  return { url: `postgresql://${USER}@/postgres?host=${encodeURIComponent(folder)}`, stop };
}

/** The user under which the server runs: this one, unless that is root. */
async function serverUser() {
  if (process.getuid?.() !== 0) return {};
  const [uid, gid] = await Promise.all(
    ['-u', '-g'].map(async (what) => Number((await capture('id', [what, SERVER_USER])).output)),
  );
  return { uid, gid };
}
