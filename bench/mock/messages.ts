import type { Message } from './load.js';

export const get =
  (path: (client: number, number: number) => string): Message =>
  (client, number) =>
    `GET ${path(client, number)} HTTP/1.1\r\nHost: 127.0.0.1\r\nAccept: application/json\r\n\r\n`;

export const post =
  (path: string): Message =>
  (client, number) => {
    const body = JSON.stringify({ name: `New ${client}-${number}`, size: number, kind: 'a' });
    return `POST ${path} HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: ${body.length}\r\n\r\n${body}`;
  };
