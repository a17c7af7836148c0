// Everything a fresh machine needs, then the application. Ctrl+C stops all of it.
import { fork } from 'node:child_process';
import { join } from 'node:path';
import { startDatabase, startDatabaseAgain } from './lib/database.mjs';
import { checkNode, ensureBuilt, ensurePackages } from './lib/packages.mjs';
import { exitCode, root, stopProcess } from './lib/processes.mjs';
import { clearRunning, runningStart, stateFolder, writeRunning } from './lib/running.mjs';
import { run, say } from './lib/say.mjs';
import { listenForStop, orStopped, stopSignal } from './lib/stopping.mjs';

/** The server says by this code that it was told something wrong, and has said what. */
const WRONG_CONFIGURATION = 78;

const folder = join(stateFolder, 'mariadb');

/** Starts MariaDB again whenever it ends by itself, as long as nobody stops all of it. */
async function keepAlive(running) {
  while (!stopSignal.aborted) {
    await running.database.ended;
    if (stopSignal.aborted) return;
    say('MariaDB ended by itself; it is started again. Until then reads go on and writes are refused.');
    running.database = await orStopped(startDatabaseAgain(folder, running.database.port));
    say('MariaDB is running again.');
  }
}

await run(async () => {
  checkNode();
  const other = await runningStart();
  if (other !== null) {
    say(
      `Isomeros is running already, at ${other.url ?? 'an address it is about to print'} (process ${other.pid}).`,
    );
    return 0;
  }
  writeRunning(null);
  listenForStop();
  const running = { database: null, server: null };
  try {
    await orStopped(ensurePackages());
    await orStopped(ensureBuilt());
    const ownUrl = process.env.ISOMEROS_DATABASE_URL;
    if (ownUrl === undefined) running.database = await orStopped(startDatabase(folder));
    else say('Using the database of ISOMEROS_DATABASE_URL.');
    const env = { ...process.env, ISOMEROS_DATABASE_URL: ownUrl ?? running.database.url };
    running.server = fork(join(root, 'apps/server/dist/main.js'), { cwd: root, env, detached: true });
    running.server.on('message', ({ url }) => writeRunning(url));
    say('Starting. Ctrl+C stops everything.');
    const guarded = running.database === null ? [] : [keepAlive(running)];
    const code = await orStopped(Promise.race([exitCode(running.server), ...guarded]));
    if (code !== WRONG_CONFIGURATION) say(`The server ended by itself, with ${code}.`);
    return 1;
  } finally {
    if (running.server !== null) await stopProcess(running.server);
    if (running.database !== null) await running.database.stop();
    clearRunning();
  }
});
