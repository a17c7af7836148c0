import type { Operation } from './operation.js';
import type { Shape } from './shape.js';
import type { Contract } from './types.js';

/** Whether a shape is answered as one record. */
export const isOneRecord = ({ purpose }: Pick<Shape, 'purpose'>): boolean => purpose === 'item';

const SENDING_ONE: ReadonlySet<Operation['verb']> = new Set(['create', 'replace', 'change', 'attach']);

/** Whether an operation takes a record in a member of the body, beside a bare one, or not. */
export function takesEnveloped(
  { representation: { record } }: Contract,
  { verb, accepts }: Pick<Operation, 'verb' | 'accepts'>,
): 'always' | 'also' | 'never' {
  if (record === null || accepts === null || !SENDING_ONE.has(verb)) return 'never';
  if (record.of === 'bodies') return 'always';
  // Whatever was read may be sent back.
  return verb === 'replace' || verb === 'attach' ? 'also' : 'never';
}
