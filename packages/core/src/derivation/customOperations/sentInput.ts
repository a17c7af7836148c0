import type { Operand } from '../../arrangement/index.js';
import type { MemberType } from '../../contract/index.js';

/** A member of a body that no record stores. */
export interface SentInput {
  readonly name: string;
  readonly type: MemberType;
  /** Without a default it must be sent. */
  readonly isRequired: boolean;
  readonly isSecret: boolean;
  /** What it is where it is not sent. */
  readonly default: Operand | null;
  /** The member of the same body that it must equal. */
  readonly equals: string | null;
}

/** An input that the effect of an operation says is sent: it must be, unless it has a default. */
export const sentFor = (
  name: string,
  type: MemberType,
  usual: Operand | null = null,
  isSecret = false,
): SentInput => ({ name, type, isRequired: usual === null, isSecret, default: usual, equals: null });
