import { fileURLToPath } from 'node:url';

interface TestDatabase {
  readonly url: string;
  readonly stop: () => Promise<void>;
}

const script = fileURLToPath(new URL('../scripts/lib/testDatabase.mjs', import.meta.url));

/** A MariaDB for one run, in a folder that is removed afterwards. */
export const { startTestDatabase } = (await import(script)) as {
  startTestDatabase: () => Promise<TestDatabase>;
};
