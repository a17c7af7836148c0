import type { Operation } from './operation.js';
import type { Contract } from './types.js';

export const TEXT_TYPE = 'text/plain';
export const HAL = 'application/hal+json';

const JSON_ALONE: readonly string[] = ['application/json'];
const TEXT_ALONE: readonly string[] = [TEXT_TYPE];

/** The media types that an operation answers with when it succeeds, the preferred one first. */
export function answerTypes(
  { representation }: Contract,
  { custom }: Pick<Operation, 'custom'>,
): readonly string[] {
  if (custom?.kind === 'fixed') return custom.body.kind === 'object' ? JSON_ALONE : TEXT_ALONE;
  if (custom?.kind === 'aggregate') return JSON_ALONE;
  if (custom?.kind === 'verify' && custom.answers.kind === 'token') return JSON_ALONE;
  return representation.mediaTypes;
}
