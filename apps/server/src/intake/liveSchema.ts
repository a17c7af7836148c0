import type { LiveSchema, LiveSchemaAddress } from '@isomeros/api';
import { createConnection, type Connection, type RowDataPacket } from 'mysql2/promise';
import { isLoopback } from '../config.js';
import { errorCode } from '../errors.js';
import { ApiProblem } from '../http/problem.js';

const CONNECT_MS = 5_000;
const STATEMENT_SECONDS = 20;
/** A database that has gone silent is given up. */
const SILENT_MS = (STATEMENT_SECONDS + 5) * 1_000;
const MOST_TABLES = 2_000;

/** Reads what a schema declares, in a session that cannot write. */
export async function readLiveSchema(address: LiveSchemaAddress, silentMs = SILENT_MS): Promise<LiveSchema> {
  if (!isLoopback(address.host) && !address.remote) throw notConfirmed(address.host);
  let connection: Connection | null = null;
  try {
    connection = await createConnection({
      host: address.host,
      port: address.port,
      user: address.user,
      password: address.password,
      connectTimeout: CONNECT_MS,
      multipleStatements: false,
      flags: ['-LOCAL_FILES'],
    });
    const session = new Session(connection, silentMs);
    await session.ask('SET SESSION TRANSACTION READ ONLY');
    await session.ask(`SET SESSION max_statement_time = ${STATEMENT_SECONDS}`);
    return await describe(session, address);
  } catch (error) {
    throw problemOf(error, address);
  } finally {
    connection?.destroy();
  }
}

/** Asks one statement after the other, each answered within a time or not at all. */
class Session {
  constructor(
    private readonly connection: Connection,
    private readonly timeout: number,
  ) {}

  async ask(sql: string, values: readonly string[] = []): Promise<readonly RowDataPacket[]> {
    const { timeout } = this;
    const [rows] = await this.connection.query<RowDataPacket[]>({ sql, values: [...values], timeout });
    return rows;
  }
}

async function describe(session: Session, { schema, host, port }: LiveSchemaAddress): Promise<LiveSchema> {
  const found = await session.ask(
    `SELECT TABLE_NAME AS name, TABLE_TYPE AS type FROM information_schema.TABLES
     WHERE TABLE_SCHEMA = ? ORDER BY TABLE_NAME LIMIT ${MOST_TABLES + 1}`,
    [schema],
  );
  if (found.length === 0 || found.length > MOST_TABLES)
    throw await emptyOrLarge(session, schema, found.length);
  const names = (type: string): string[] =>
    found.flatMap((row) => (row['type'] === type ? [String(row['name'])] : []));
  const tables = names('BASE TABLE');
  const views = names('VIEW');
  const parts = [`-- The schema ${schema} of the database at ${host}:${port}`];
  for (const table of tables) {
    const rows = await session.ask('SHOW CREATE TABLE ??.??', [schema, table]);
    parts.push(`${String(rows[0]?.['Create Table'] ?? '')};`);
  }
  for (const view of views) parts.push(`CREATE VIEW ${quoted(view)};`);
  return { ddl: `${parts.join('\n')}\n`, tables: tables.length, views: views.length };
}

const quoted = (name: string): string => `\`${name.replaceAll('`', '``')}\``;

async function emptyOrLarge(session: Session, schema: string, count: number): Promise<ApiProblem> {
  if (count > MOST_TABLES)
    return new ApiProblem('database', `The schema ${schema} has more than ${MOST_TABLES} tables.`);
  const rows = await session.ask('SELECT 1 FROM information_schema.SCHEMATA WHERE SCHEMA_NAME = ?', [schema]);
  const detail =
    rows.length === 0
      ? `There is no schema ${schema}, or the user may not see it.`
      : `The schema ${schema} has no tables that the user may see.`;
  return new ApiProblem('database', detail);
}

function notConfirmed(host: string): ApiProblem {
  const message = `${host} is not on this machine; confirm that the password may travel there.`;
  return new ApiProblem('invalid', message, {
    errors: [{ pointer: '/remote', code: 'not-confirmed', message }],
  });
}

function problemOf(error: unknown, { host, port, user }: LiveSchemaAddress): unknown {
  switch (errorCode(error)) {
    case 'ER_ACCESS_DENIED_ERROR':
    case 'ER_ACCESS_DENIED_NO_PASSWORD_ERROR':
    case 'ER_DBACCESS_DENIED_ERROR':
      return new ApiProblem('database', `The database refused ${user} with this password.`);
    case 'ER_TABLEACCESS_DENIED_ERROR':
      return new ApiProblem('database', `${user} may not see how the tables are made.`);
    case 'ECONNREFUSED':
    case 'ENOTFOUND':
    case 'ETIMEDOUT':
    case 'EHOSTUNREACH':
    case 'ENETUNREACH':
    case 'EAI_AGAIN':
      return new ApiProblem('database', `Nothing answers at ${host}:${port}.`);
    case 'PROTOCOL_SEQUENCE_TIMEOUT':
      return new ApiProblem('database', `${host}:${port} went silent, and was given up.`);
    case 'ER_STATEMENT_TIMEOUT':
      return new ApiProblem('database', `The database took longer than ${STATEMENT_SECONDS} s.`);
    case 'PROTOCOL_CONNECTION_LOST':
    case 'ECONNRESET':
      return new ApiProblem('database', `The connection to ${host}:${port} was lost.`);
    case null:
      return error;
    default:
      return new ApiProblem('database', `${host}:${port} does not answer as a MariaDB would.`);
  }
}
