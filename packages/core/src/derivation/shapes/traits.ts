import type { Exposure } from '../../arrangement/index.js';
import type { Member, MemberType, OwnField, Reason } from '../../contract/index.js';
import type { ScalarType } from '../../model/index.js';

/** One thing an entity's representations can carry, with what the model says of it. */
export interface AttributeTraits {
  readonly name: string;
  /** What it would be called if nobody had chosen: its name in the model, in the case of the setting. */
  readonly derived: string;
  readonly type: MemberType;
  readonly source: OwnField;
  readonly description: string | null;
  readonly default: Member['default'];
  readonly example: Member['example'];
  readonly isKey: boolean;
  readonly required: boolean;
  /** What the model allows: it may be returned, accepted on create, accepted on replace and change. */
  readonly returned: boolean;
  readonly onCreate: boolean;
  readonly onReplace: boolean;
  readonly touched: boolean;
  /** The transitions that a change of it may carry out. */
  readonly transitions: readonly string[];
  /** The server supplies the value when the client may not. */
  readonly supplied: boolean;
  readonly reasons: readonly Reason[];
}

/** The same with what goes in and what comes out. The shapes of one entity are different views of its traits. */
export interface MemberTraits extends AttributeTraits {
  readonly exposed: Exposure;
}

/** Whether values of a type are one JSON string, number or boolean each. */
export const isScalar = (type: MemberType): type is ScalarType =>
  type.kind !== 'json' &&
  type.kind !== 'shape' &&
  type.kind !== 'list' &&
  type.kind !== 'links' &&
  type.kind !== 'page';
