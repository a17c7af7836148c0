import type { CustomOperation, FixedValue } from '../../arrangement/index.js';
import type { Custom } from '../../contract/index.js';
import { Unfit } from './found.js';

/** An answer that is always the same. */
export interface FixedAnswer {
  readonly operation: CustomOperation;
  readonly custom: Extract<Custom, { kind: 'fixed' }>;
}

/** Answers are objects in JSON, or plain texts. */
export function resolveFixed(operation: CustomOperation): FixedAnswer {
  const { effect } = operation;
  if (effect.kind !== 'fixed') throw new Unfit('What is about no entity answers the same to everybody.');
  const { body } = effect;
  if (body.kind === 'literal' && body.value === '') throw new Unfit('An empty text answers nothing.');
  if (!isAnswer(body)) throw new Unfit('A fixed answer is an object or a text.');
  return { operation, custom: { kind: 'fixed', body } };
}

const isAnswer = (body: FixedValue): boolean =>
  body.kind === 'object' ||
  body.kind === 'version' ||
  (body.kind === 'literal' && typeof body.value === 'string');
