import type { ScalarType } from '../../model/index.js';

/** A member of a body that no record stores. */
export interface SentInput {
  readonly name: string;
  readonly type: ScalarType;
  readonly isSecret: boolean;
}
