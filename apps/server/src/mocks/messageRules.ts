import { problem, type Problem } from '@isomeros/core/engine';
import type { Head } from './journal.js';

const NAMES_A_HOST = /^[^\s/?#@]+$/;

/** What is wrong with the head of a message, whatever it asks for (RFC 9112); `null` where nothing is. */
export function messageProblem({ version, headers }: Head): Problem | null {
  const valuesOf = (name: string): readonly string[] =>
    headers.filter((_value, index) => index % 2 === 1 && headers[index - 1]?.toLowerCase() === name);
  const hosts = valuesOf('host');
  const isNewer = version === 'HTTP/1.1';
  if (hosts.length > 1)
    return problem(400, 'bad-request', 'The request has more than one Host header (RFC 9112 §3.2).');
  if (hosts.length === 0 && isNewer)
    return problem(400, 'bad-request', 'The request has no Host header (RFC 9112 §3.2).');
  if (hosts.some((host) => host !== '' && !NAMES_A_HOST.test(host)))
    return problem(400, 'bad-request', 'The Host header names no host (RFC 9112 §3.2).');
  const codings = valuesOf('transfer-encoding').join(',').toLowerCase();
  if (codings !== '' && codings !== 'chunked')
    return problem(
      501,
      'transfer-coding',
      `The transfer coding ${codings.slice(0, 80)} is not read here; chunked is.`,
    );
  const [expected] = valuesOf('expect');
  if (isNewer && expected !== undefined && expected.toLowerCase() !== '100-continue')
    return problem(
      417,
      'expectation',
      `The expectation ${expected.slice(0, 80)} is not met here; 100-continue is.`,
    );
  return null;
}
