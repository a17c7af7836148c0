// The application with reload: sources are compiled and the server is started again on every change;
// the pages come from Vite.
import { fork, spawn } from 'node:child_process';
import { watch } from 'node:fs';
import { join } from 'node:path';
import { startDatabase } from './lib/database.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { root, runCommand, stopProcess } from './lib/processes.mjs';
import { clearRunning, runningStart, stateFolder, writeRunning } from './lib/running.mjs';
import { run, say, UserError } from './lib/say.mjs';
import { listenForStop, stopAsked } from './lib/stopping.mjs';

const QUIET_MS = 300;

await run(async () => {
  checkNode();
  const running = await runningStart();
  if (running !== null) throw new UserError(`Isomeros is running already, at ${running.url}.`);
  writeRunning(null);
  listenForStop();
  await ensurePackages();
  await runCommand('npx', ['--no-install', 'tsc', '-b', 'packages/core', 'apps/server']);
  const ownUrl = process.env.ISOMEROS_DATABASE_URL;
  const database = ownUrl === undefined ? await startDatabase(join(stateFolder, 'mariadb')) : null;
  const env = { ...process.env, ISOMEROS_DATABASE_URL: ownUrl ?? database.url };
  const compiler = spawn(
    'npx',
    ['--no-install', 'tsc', '-b', '--watch', '--preserveWatchOutput', 'packages/core', 'apps/server'],
    { cwd: root, stdio: 'inherit' },
  );
  const pages = spawn('npx', ['--no-install', 'vite', '--port', '4900', '--strictPort'], {
    cwd: join(root, 'apps/web'),
    stdio: 'inherit',
  });
  const start = () => fork(join(root, 'apps/server/dist/main.js'), { cwd: root, env, detached: true });
  let server = start();
  let timer = null;
  const restart = async () => {
    await stopProcess(server);
    server = start();
  };
  const watchers = ['packages/core/dist', 'apps/server/dist'].map((folder) =>
    watch(join(root, folder), { recursive: true }, () => {
      clearTimeout(timer);
      timer = setTimeout(() => void restart(), QUIET_MS);
    }),
  );
  say('Pages with reload are at http://localhost:4900/. Ctrl+C stops everything.');
  await stopAsked;
  watchers.forEach((watcher) => watcher.close());
  await Promise.all([stopProcess(server), stopProcess(compiler), stopProcess(pages)]);
  if (database !== null) await database.stop();
  clearRunning();
});
