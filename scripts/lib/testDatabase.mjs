import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startDatabase } from './database.mjs';

/** A MariaDB for one run of tests, in a folder that is removed afterwards. Its user may make schemas. */
export async function startTestDatabase({ outlivesPower = true } = {}) {
  const folder = mkdtempSync(join(tmpdir(), 'isomeros-test-'));
  const database = await startDatabase(folder, { firstPort: 4851, schemas: '*', outlivesPower });
  const stop = async () => {
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  };
  return { url: database.url, stop };
}
