import { createConnection, type RowDataPacket } from 'mysql2/promise';

/** The MariaDB that `npm test` started: its address without a schema. */
function serverUrl(): URL {
  const address = process.env['ISOMEROS_TEST_DATABASE_URL'];
  if (address === undefined) throw new Error('ISOMEROS_TEST_DATABASE_URL is not set; run npm test.');
  return new URL(address);
}

/** Runs statements on the server, in a schema where one is given. */
export async function execute(statement: string, schema?: string): Promise<readonly RowDataPacket[]> {
  const url = serverUrl();
  const connection = await createConnection({
    host: url.hostname,
    port: Number(url.port),
    user: decodeURIComponent(url.username),
    password: decodeURIComponent(url.password),
    multipleStatements: true,
    ...(schema === undefined ? {} : { database: schema }),
  });
  try {
    const [rows] = await connection.query<RowDataPacket[]>(statement);
    return rows;
  } finally {
    await connection.end();
  }
}

let made = 0;

/** An empty schema of its own; returns its address. */
export async function createSchema(kind = 'test'): Promise<string> {
  const name = `isomeros_${kind}_${process.pid}_${++made}`;
  await execute(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`);
  const url = serverUrl();
  url.pathname = `/${name}`;
  return url.href;
}

/** The name of the schema at an address. */
export const schemaName = (address: string): string => new URL(address).pathname.slice(1);

export async function dropSchema(address: string): Promise<void> {
  await execute(`DROP DATABASE ${schemaName(address)}`);
}

/** Runs one statement in the schema of that address. */
export const runSql = (address: string, statement: string): Promise<readonly RowDataPacket[]> =>
  execute(statement, schemaName(address));
