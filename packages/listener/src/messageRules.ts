import { problem, type Problem } from '@isomeros/core/engine';

const NAMES_A_HOST = /^[^\s/?#@]+$/;

const LONGEST_NAME = 'transfer-encoding'.length;

/**
 * What is wrong with the head of a message, whatever it asks for (RFC 9112); `null` where nothing is. Header lines are
 * names and values in turn.
 */
export function messageProblem(version: string, headers: readonly string[]): Problem | null {
  const [hosts, transferCodings]: [string[], string[]] = [[], []];
  let expected: string | undefined;
  // Gone through once, since it is done for every message.
  for (let index = 0; index + 1 < headers.length; index += 2) {
    const [name = '', value = ''] = [headers[index], headers[index + 1]];
    switch (name.length <= LONGEST_NAME ? name.toLowerCase() : '') {
      case 'host':
        hosts.push(value);
        break;
      case 'transfer-encoding':
        transferCodings.push(value);
        break;
      case 'expect':
        expected ??= value;
    }
  }
  const isNewer = version === 'HTTP/1.1';
  if (hosts.length > 1)
    return problem(400, 'bad-request', 'The request has more than one Host header (RFC 9112 §3.2).');
  if (hosts.length === 0 && isNewer)
    return problem(400, 'bad-request', 'The request has no Host header (RFC 9112 §3.2).');
  if (hosts.some((host) => host !== '' && !NAMES_A_HOST.test(host)))
    return problem(400, 'bad-request', 'The Host header names no host (RFC 9112 §3.2).');
  const codings = transferCodings.join(',').toLowerCase();
  if (codings !== '' && codings !== 'chunked')
    return problem(
      501,
      'transfer-coding',
      `The transfer coding ${codings.slice(0, 80)} is not read here; chunked is.`,
    );
  if (isNewer && expected !== undefined && expected.toLowerCase() !== '100-continue')
    return problem(
      417,
      'expectation',
      `The expectation ${expected.slice(0, 80)} is not met here; 100-continue is.`,
    );
  return null;
}
