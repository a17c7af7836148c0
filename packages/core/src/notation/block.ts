import type { Attribute, ImplicitId, UniqueRule } from '../model/index.js';

/** An entity or a value while its lines are read. */
export interface Block {
  readonly kind: 'entity' | 'value';
  readonly id: string;
  readonly name: string;
  readonly description: string | null;
  readonly comments: readonly string[];
  readonly attributes: Attribute[];
  readonly uniques: UniqueRule[];
  readonly implicitId: ImplicitId;
}

export const emptyBlock = (
  kind: Block['kind'],
  id: string,
  name: string,
  description: string | null,
  comments: readonly string[],
): Block => ({ kind, id, name, description, comments, attributes: [], uniques: [], implicitId: 'integer' });
