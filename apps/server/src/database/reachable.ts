import { createConnection } from 'mysql2/promise';
import { ConfigError } from '../config.js';
import { errorCode } from '../errors.js';
import { connectionOptions } from './options.js';

const ATTEMPTS = 5;
const PAUSE_MS = 1_000;

/** Whether trying again may help: the database may still be starting. */
const MAY_COME: ReadonlySet<string> = new Set(['ECONNREFUSED', 'ECONNRESET', 'PROTOCOL_CONNECTION_LOST']);

/** Connects once, so that what is wrong with the address is said in one line. Throws a ConfigError. */
export async function waitForDatabase(address: string): Promise<void> {
  for (let attempt = 1; ; attempt++) {
    try {
      const connection = await createConnection(connectionOptions(address));
      await connection.end();
      return;
    } catch (error) {
      const code = errorCode(error) ?? '';
      if (attempt === ATTEMPTS || !MAY_COME.has(code))
        throw new ConfigError(explained(code, new URL(address)));
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
    }
  }
}

/** What is wrong, without the password. */
function explained(code: string, { hostname, port, username, pathname }: URL): string {
  const place = `${hostname}:${port === '' ? '3306' : port}`;
  switch (code) {
    case 'ER_ACCESS_DENIED_ERROR':
    case 'ER_ACCESS_DENIED_NO_PASSWORD_ERROR':
      return `The database at ${place} refuses ${decodeURIComponent(username)}; look at the user and password in ISOMEROS_DATABASE_URL.`;
    case 'ER_BAD_DB_ERROR':
    case 'ER_DBACCESS_DENIED_ERROR':
      return `The database at ${place} has no schema ${decodeURIComponent(pathname.slice(1))} for ${decodeURIComponent(username)}; make it, or name another in ISOMEROS_DATABASE_URL.`;
    default:
      return `No MariaDB answers at ${place} (${code === '' ? 'no reason given' : code}); look at ISOMEROS_DATABASE_URL.`;
  }
}
