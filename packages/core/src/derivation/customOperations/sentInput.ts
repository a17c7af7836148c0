import type { Operand } from '../../arrangement/index.js';
import type { MemberType } from '../../contract/index.js';

/** A member of a body that no record stores. */
export interface SentInput {
  readonly name: string;
  readonly type: MemberType;
  readonly isSecret: boolean;
  /** What it is where it is not sent; `null`: it must be. */
  readonly default: Operand | null;
}
