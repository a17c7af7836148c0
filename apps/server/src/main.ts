import type { Server } from 'node:http';
import { ConfigError, oldVariables, readConfig, type Config } from './config.js';
import { errorCode } from './errors.js';

const PORTS_TRIED = 100;

function bind(server: Server, port: number, host: string): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, () => {
      server.off('error', reject);
      resolve();
    });
  });
}

/** Listens on the first free port from `first` on. */
async function listen(server: Server, host: string, first: number): Promise<number> {
  for (let port = first; port < first + PORTS_TRIED && port <= 65_535; port++) {
    try {
      await bind(server, port, host);
      if (port !== first) console.log(`Port ${first} is in use; ${port} is taken instead.`);
      return port;
    } catch (error) {
      switch (errorCode(error)) {
        case 'EADDRINUSE':
          continue;
        case 'EACCES':
          throw new ConfigError(
            `This user may not listen on port ${port}; set ISOMEROS_PORT to 1024 or more.`,
          );
        case 'EADDRNOTAVAIL':
        case 'ENOTFOUND':
        case 'EAI_AGAIN':
          throw new ConfigError(`ISOMEROS_HOST is ${host}, which is no address of this machine.`);
        default:
          throw error;
      }
    }
  }
  throw new ConfigError(`No free port was found from ${first} on; set ISOMEROS_PORT.`);
}

/** Reads the some thousand modules of the application only now, so that a wrong configuration is told at once. */
async function start(config: Config): Promise<void> {
  const { waitForDatabase } = await import('./database/reachable.js');
  await waitForDatabase(config.databaseUrl);
  const { createApplication } = await import('./application.js');
  const app = await createApplication(config);
  await app.init();
  const port = await listen(app.getHttpServer(), config.host, config.port);
  const shown = config.host.includes(':') ? `[${config.host}]` : config.host;
  const url = `http://${shown}:${port}/${config.token === null ? '' : `?token=${encodeURIComponent(config.token)}`}`;
  console.log(`Isomeros is at ${url}`);
  process.send?.({ url, port });
  // The start command holds the other end: when it is killed, nothing is left running behind it.
  process.once('disconnect', () => process.kill(process.pid, 'SIGTERM'));
}

/** EX_CONFIG of sysexits: the start command knows that everything is said. */
const WRONG_CONFIGURATION = 78;

try {
  for (const warning of oldVariables(process.env)) console.warn(warning);
  await start(readConfig(process.env));
} catch (error) {
  if (!(error instanceof ConfigError)) throw error;
  console.error(error.message);
  process.exit(WRONG_CONFIGURATION);
}
