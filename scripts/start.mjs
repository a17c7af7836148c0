// Everything a fresh machine needs, then the application. Ctrl+C stops all of it.
import { fork } from 'node:child_process';
import { join } from 'node:path';
import { startDatabase } from './lib/database.mjs';
import { checkNode, ensureBuilt, ensurePackages } from './lib/packages.mjs';
import { exitCode, root, stopProcess } from './lib/processes.mjs';
import { clearRunning, runningStart, stateFolder, writeRunning } from './lib/running.mjs';
import { run, say } from './lib/say.mjs';

await run(async () => {
  checkNode();
  const running = await runningStart();
  if (running !== null) {
    say(
      `Isomeros is running already, at ${running.url ?? 'an address it is about to print'} (process ${running.pid}).`,
    );
    return 0;
  }
  writeRunning(null);
  const stopping = new Promise((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => resolve(signal));
  });
  let database = null;
  let server = null;
  try {
    await ensurePackages();
    await ensureBuilt();
    const ownUrl = process.env.ISOMEROS_DATABASE_URL;
    if (ownUrl === undefined) database = await startDatabase(join(stateFolder, 'mariadb'));
    else say('Using the database of ISOMEROS_DATABASE_URL.');
    const env = { ...process.env, ISOMEROS_DATABASE_URL: ownUrl ?? database.url };
    server = fork(join(root, 'apps/server/dist/main.js'), { cwd: root, env, detached: true });
    server.on('message', ({ url }) => writeRunning(url));
    say('Starting. Ctrl+C stops everything.');
    const outcome = await Promise.race([stopping, exitCode(server).then((code) => ({ code }))]);
    if (typeof outcome === 'string') {
      say('Stopping.');
      return 0;
    }
    say(`The server ended by itself, with ${outcome.code}.`);
    return 1;
  } finally {
    if (server !== null) await stopProcess(server);
    if (database !== null) await database.stop();
    clearRunning();
  }
});
