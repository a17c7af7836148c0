import { hash } from 'node:crypto';
import { DIGEST_LENGTH, publicationSource, type Service } from '@isomeros/core/engine';
import { lazy } from '@isomeros/core/model';
import { publish } from '@isomeros/core/publication';
import type { MockRow } from '../database/tables.js';
import type { Derivation } from '../compute/program.js';
import type { ValidModel } from '../designs/modelColumns.js';
import { errorCode } from '../errors.js';
import { ApiProblem } from '../http/problem.js';

const PORT_TAKEN: ReadonlySet<string> = new Set(['EADDRINUSE', 'EACCES']);

/** Whether listening failed because the port is in use, or not ours to take. */
export const isPortTaken = (error: unknown): boolean => PORT_TAKEN.has(errorCode(error) ?? '');

export const serviceOf = (
  { model, contract, description }: Derivation,
  { secret }: MockRow,
  name: string,
): Service => ({
  name,
  model,
  contract,
  description: () => description,
  // Most mocks are never asked for it.
  reference: lazy(() => publish(publicationSource(contract, model, []), 'reference.html', { mock: null })),
  secret,
  digest: (text) => hash('sha256', text, 'base64url').slice(0, DIGEST_LENGTH),
});

/** What is to be served must be there. */
export function checkArrangements({ choices }: ValidModel, names: readonly string[]): void {
  const known = choices.arrangements.map(({ name }) => name);
  const missing = names.find((name) => !known.includes(name));
  if (missing === undefined) return;
  const message = `The design has no arrangement ${missing}; it has ${known.join(', ')}.`;
  throw new ApiProblem('invalid', message, {
    errors: [{ pointer: '/arrangements', code: 'unknown', message }],
  });
}
