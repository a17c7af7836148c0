import { connect, type Socket } from 'node:net';

/** What a run of requests gave. */
export interface Load {
  readonly perSecond: number;
  /** Milliseconds. */
  readonly median: number;
  readonly p99: number;
}

/** A request as it travels, for the client and number it is sent by. */
export type Message = (client: number, number: number) => string;

const CLIENTS = 32;

/**
 * Sends requests over 32 connections that are kept alive, each the next as soon as it has its answer; or, where
 * a rate is told, so many a second in all.
 */
export async function load(
  port: number,
  message: Message,
  seconds: number,
  perSecond: number | null = null,
): Promise<Load> {
  const times: number[] = [];
  const end = performance.now() + seconds * 1000;
  const pause = perSecond === null ? 0 : (CLIENTS * 1000) / perSecond;
  const clients = Array.from({ length: CLIENTS }, (_, client) =>
    run(port, message, client, end, times, pause),
  );
  const started = performance.now();
  await Promise.all(clients);
  const took = (performance.now() - started) / 1000;
  times.sort((a, b) => a - b);
  const at = (part: number): number => times[Math.floor((times.length - 1) * part)] ?? NaN;
  return { perSecond: times.length / took, median: at(0.5), p99: at(0.99) };
}

function run(
  port: number,
  message: Message,
  client: number,
  end: number,
  times: number[],
  /** Milliseconds from one request to the next. */
  pause: number,
): Promise<void> {
  return new Promise((resolve, reject) => {
    const socket = connect(port, '127.0.0.1');
    socket.setNoDelay(true);
    let number = 0;
    let sent = 0;
    let pending: Buffer = Buffer.alloc(0);
    const next = (): void => {
      sent = performance.now();
      socket.write(message(client, number++));
    };
    socket.on('connect', next);
    socket.on('error', reject);
    socket.on('close', () => {
      resolve();
    });
    socket.on('data', (part: Buffer) => {
      pending = pending.length === 0 ? part : Buffer.concat([pending, part]);
      const length = answerLength(pending);
      if (length === null || pending.length < length) return;
      check(pending, socket);
      pending = Buffer.alloc(0);
      times.push(performance.now() - sent);
      if (performance.now() >= end) socket.destroy();
      else if (pause === 0) next();
      else setTimeout(next, Math.max(0, sent + pause - performance.now()));
    });
  });
}

/** How long an answer is with its body, once its head is there. */
function answerLength(bytes: Buffer): number | null {
  const head = bytes.indexOf('\r\n\r\n');
  if (head === -1) return null;
  const found = /content-length: (\d+)/i.exec(bytes.toString('latin1', 0, head));
  return head + 4 + Number(found?.[1] ?? 0);
}

function check(bytes: Buffer, socket: Socket): void {
  const status = Number(bytes.toString('latin1', 9, 12));
  if (status >= 200 && status < 300) return;
  socket.destroy(new Error(`An answer was ${bytes.toString('utf8', 0, 400)}`));
}
