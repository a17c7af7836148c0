import { createApplication } from './application.js';
import { isLoopback, readConfig } from './config.js';
import { errorCode } from './errors.js';

const PORTS_TRIED = 100;

/** Listens on the first free port from `first` on. */
async function listen(
  app: Awaited<ReturnType<typeof createApplication>>,
  host: string,
  first: number,
): Promise<number> {
  for (let port = first; port < first + PORTS_TRIED; port++) {
    try {
      await app.listen(port, host);
      if (port !== first) console.log(`Port ${first} is in use; ${port} is taken instead.`);
      return port;
    } catch (error) {
      if (errorCode(error) !== 'EADDRINUSE') throw error;
    }
  }
  throw new Error(`No free port was found from ${first} to ${first + PORTS_TRIED - 1}.`);
}

const config = readConfig(process.env);
if (!isLoopback(config.host) && config.token === null) {
  throw new Error(
    `ISOMEROS_HOST is ${config.host}, which others can reach: set ISOMEROS_TOKEN to 16 characters or more.`,
  );
}
const app = await createApplication(config);
const port = await listen(app, config.host, config.port);
const shown = config.host.includes(':') ? `[${config.host}]` : config.host;
const url = `http://${shown}:${port}/${config.token === null ? '' : `?token=${config.token}`}`;
console.log(`Isomeros is at ${url}`);
process.send?.({ url, port });
// The start command holds the other end: when it is killed, nothing is left running behind it.
process.once('disconnect', () => process.kill(process.pid, 'SIGTERM'));
