// Everything a fresh machine needs, then all checks and tests: types, lint, units, server, end to end.
// Words after the command narrow it: npm test -- core server
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureChromium } from './lib/chromium.mjs';
import { checkNode, ensureBuilt, ensurePackages } from './lib/packages.mjs';
import { makePassingFolder } from './lib/passingFolder.mjs';
import { endChildren, runCommand } from './lib/processes.mjs';
import { run, say } from './lib/say.mjs';
import { listenForStop, orStopped, Stopped } from './lib/stopping.mjs';
import { ensureProgram } from './lib/systemPackages.mjs';
import { startTestDatabase } from './lib/testDatabase.mjs';
import { startTestPostgres } from './lib/testPostgres.mjs';

const UNITS = ['core', 'listener', 'web'];
const PARTS = ['lint', ...UNITS, 'server', 'e2e'];
const asked = process.argv.slice(2);
const wanted = (part) => asked.length === 0 || asked.includes(part);
const npx = (...args) => runCommand('npx', ['--no-install', ...args]);

/** Results, and all that tests keep for a while: databases, profiles of browsers. */
const passing = makePassingFolder('isomeros-test-');
process.env.TMPDIR = passing;
const counts = { passed: 0, failed: 0 };

async function jest(project, env = {}) {
  const file = join(passing, `${project}.json`);
  const args = [
    '--experimental-vm-modules',
    '--no-warnings',
    'node_modules/jest/bin/jest.js',
    '--selectProjects',
    project,
    '--maxWorkers=100%',
    '--json',
    `--outputFile=${file}`,
  ];
  try {
    await runCommand(process.execPath, args, {
      env: { ...process.env, ...env },
      stdio: ['ignore', 'ignore', 'inherit'],
    });
  } finally {
    const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(file, 'utf8'));
    counts.passed += numPassedTests;
    counts.failed += numFailedTests;
  }
}

async function endToEnd(env) {
  const file = join(passing, 'e2e.json');
  try {
    await runCommand('npx', ['--no-install', 'playwright', 'test', '--config', 'e2e/playwright.config.ts'], {
      env: { ...process.env, ...env, ISOMEROS_E2E_RESULTS: file },
    });
  } finally {
    const { stats } = JSON.parse(readFileSync(file, 'utf8'));
    counts.passed += stats.expected + stats.flaky;
    counts.failed += stats.unexpected;
  }
}

async function server(env) {
  const postgres = await startTestPostgres();
  try {
    say('Server.');
    await jest('server', { ...env, ISOMEROS_TEST_POSTGRES_URL: postgres.url });
  } finally {
    await postgres.stop();
  }
}

async function lint() {
  await npx('tsc', '-b');
  await npx('eslint', '.', '--max-warnings', '0');
  await npx('prettier', '--check', '--log-level', 'warn', '.');
}

/** What needs the built server and a MariaDB. */
async function served(env) {
  if (wanted('server')) await server(env);
  if (!wanted('e2e')) return;
  const program = await ensureChromium();
  await ensureProgram(['curl'], ['curl']);
  say('End to end.');
  await endToEnd({ ...env, ISOMEROS_CHROMIUM: program });
}

async function withDatabase(work) {
  const database = await startTestDatabase({ outlivesPower: false });
  try {
    await work({ ISOMEROS_TEST_DATABASE_URL: database.url });
  } finally {
    await database.stop();
  }
}

async function everything() {
  checkNode();
  const unknown = asked.find((part) => !PARTS.includes(part));
  if (unknown !== undefined) {
    say(`There is no part ${unknown}; there are ${PARTS.join(', ')}.`);
    return 1;
  }
  await ensurePackages();
  // Units need nothing that is built, and nothing needs lint: both go on beside what follows, mostly on one core.
  const needsBuild = wanted('server') || wanted('e2e');
  const built = needsBuild ? ensureBuilt() : Promise.resolve();
  const linted = wanted('lint') ? built.then(lint) : Promise.resolve();
  // They may fail before anybody waits for them.
  for (const beside of [built, linted]) beside.catch(() => undefined);
  try {
    for (const part of UNITS.filter(wanted)) {
      say(`Units of ${part}.`);
      await jest(part);
    }
    await built;
    if (needsBuild) await withDatabase(served);
  } finally {
    // Nothing is left running, whatever failed first.
    await Promise.allSettled([built, linted]);
  }
  await linted;
  say(`${counts.passed} passed, ${counts.failed} failed`);
  return counts.failed === 0 ? 0 : 1;
}

await run(async () => {
  listenForStop();
  try {
    return await orStopped(everything());
  } catch (error) {
    if (error instanceof Stopped) return 130;
    throw error;
  } finally {
    await endChildren();
    rmSync(passing, { recursive: true, force: true, maxRetries: 5 });
  }
});
