import { connect, type Socket } from 'node:net';

export interface Answer {
  readonly status: number;
  readonly headers: ReadonlyMap<string, string>;
  readonly body: Buffer;
}

/** The answers in some bytes, whole ones only. */
function answersIn(bytes: Buffer): Answer[] {
  const answers: Answer[] = [];
  for (let rest = bytes; rest.length > 0;) {
    const end = rest.indexOf('\r\n\r\n');
    if (end === -1) return answers;
    const [line = '', ...lines] = rest.toString('latin1', 0, end).split('\r\n');
    const headers = new Map(
      lines.map((one) => [
        one.slice(0, one.indexOf(':')).toLowerCase(),
        one.slice(one.indexOf(':') + 1).trim(),
      ]),
    );
    const length = Number(headers.get('content-length') ?? 0);
    if (rest.length < end + 4 + length) return answers;
    answers.push({
      status: Number(line.split(' ')[1]),
      headers,
      body: rest.subarray(end + 4, end + 4 + length),
    });
    rest = rest.subarray(end + 4 + length);
  }
  return answers;
}

/** Sends bytes in one packet, and reads until so many answers are there, or the connection ends. */
export function exchange(to: number, bytes: Buffer, count: number): Promise<Answer[]> {
  return new Promise((resolve, reject) => {
    let received = Buffer.alloc(0);
    const socket: Socket = connect(to, '127.0.0.1', () => socket.write(bytes));
    const done = (): void => {
      socket.destroy();
      resolve(answersIn(received));
    };
    socket.on('data', (part: Buffer) => {
      received = Buffer.concat([received, part]);
      if (answersIn(received).length >= count) done();
    });
    // What never comes is missing in the comparison.
    socket.setTimeout(8_000, done);
    socket.on('close', done);
    socket.on('error', reject);
  });
}

export const statuses = async (to: number, bytes: Buffer, count: number): Promise<number[]> =>
  (await exchange(to, bytes, count)).map(({ status }) => status);
