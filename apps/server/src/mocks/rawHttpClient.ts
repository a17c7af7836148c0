import { connect } from 'node:net';
import type { Contract } from '@isomeros/core/contract';
import { withCredential } from '@isomeros/core/engine';
import { ApiProblem } from '../http/problem.js';
import { OWN_CLIENT } from './ownClient.js';

const WAIT_MS = 15_000;
const MOST_RESPONSE_BYTES = 8 * 1_048_576;

/**
 * Sends a message, written as it travels (RFC 9112 §2.1), to a port of this machine, and waits until the
 * answer is complete. Host, User-Agent, Connection and Content-Length are added where they are missing, and
 * credentials put back where a recorded message names them.
 */
export function sendMessage(message: string, port: number, contract: Contract): Promise<void> {
  const bytes = completeMessage(message, port, contract);
  return new Promise((resolve, reject) => {
    const socket = connect(port, '127.0.0.1', () => socket.write(bytes));
    let received = 0;
    socket.setTimeout(WAIT_MS, () => {
      socket.destroy();
      reject(new ApiProblem('unavailable', `The mock did not answer within ${WAIT_MS / 1_000} seconds.`));
    });
    socket.on('data', (part: Buffer) => {
      received += part.length;
      if (received > MOST_RESPONSE_BYTES) socket.destroy();
    });
    socket.on('close', () => {
      resolve();
    });
    socket.on('error', (error: NodeJS.ErrnoException) => {
      if (error.code === 'ECONNREFUSED') reject(new ApiProblem('conflict', 'The mock does not listen.'));
      else resolve();
    });
  });
}

function completeMessage(message: string, port: number, contract: Contract): Buffer {
  const [head = '', ...rest] = message.replace(/\r\n/g, '\n').split('\n\n');
  const body = rest.join('\n\n').replace(/\n$/, '');
  const [requestLine = '', ...headers] = head.split('\n').filter((line) => line.trim() !== '');
  if (!/^\S+ \S+( HTTP\/\d\.\d)?$/.test(requestLine.trim())) {
    const detail = 'Expected a request line: a method, a target, and HTTP/1.1 (RFC 9112 §3).';
    throw new ApiProblem('invalid', detail, {
      errors: [{ pointer: '/message', code: 'request-line', message: detail }],
    });
  }
  const broken = headers.find((line) => !/^[!#$%&'*+\-.^_`|~0-9A-Za-z]+:/.test(line));
  if (broken !== undefined) {
    const detail = `Expected header lines such as "Accept: application/json"; found ${JSON.stringify(broken.slice(0, 80))}.`;
    throw new ApiProblem('invalid', detail, {
      errors: [{ pointer: '/message', code: 'header', message: detail }],
    });
  }
  const names = new Set(headers.map((line) => line.slice(0, line.indexOf(':')).toLowerCase()));
  const add = (name: string, value: string): void => {
    if (!names.has(name.toLowerCase())) headers.push(`${name}: ${value}`);
  };
  const [method = ''] = requestLine.split(' ');
  add('Host', `127.0.0.1:${port}`);
  add('User-Agent', OWN_CLIENT);
  if (body !== '' || !['GET', 'HEAD', 'DELETE', 'OPTIONS'].includes(method))
    add('Content-Length', String(Buffer.byteLength(body)));
  add('Connection', 'close');
  const line = / HTTP\/\d\.\d$/.test(requestLine.trim())
    ? requestLine.trim()
    : `${requestLine.trim()} HTTP/1.1`;
  const sent = headers.map((header) => {
    const colon = header.indexOf(':');
    const [name, value] = [header.slice(0, colon), header.slice(colon + 1)];
    const restored = withCredential(contract, name, value);
    return restored === value ? header : `${name}: ${restored}`;
  });
  return Buffer.from(`${[line, ...sent].join('\r\n')}\r\n\r\n${body}`);
}
