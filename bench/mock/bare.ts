// A bare handler: the same records as objects in a Map, and twenty of them ready to be answered.
import { createServer } from 'node:http';
import { records } from './records.js';

const all = new Map(records(100_000).map((record) => [record.id, record]));
const twenty = [...all.values()].filter(({ kind }) => kind === 'b').slice(0, 20);

const server = createServer((request, response) => {
  const [path = ''] = (request.url ?? '').split('?');
  const id = Number(path.split('/').at(-1));
  const body = JSON.stringify(Number.isNaN(id) ? { items: twenty } : all.get(id));
  response.setHeader('Content-Type', 'application/json');
  response.setHeader('Content-Length', Buffer.byteLength(body));
  response.end(body);
});
server.listen(Number(process.argv[2]), '127.0.0.1', () => process.send?.('ready'));
