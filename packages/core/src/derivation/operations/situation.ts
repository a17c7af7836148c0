import type { Access, Verb } from '../../contract/index.js';
import type { Entity } from '../../model/index.js';
import type { SuccessAnswer } from './answers.js';
import type { FixedAnswer, ResolvedCustom } from '../customOperations/index.js';
import type { PlacedResource } from '../place/index.js';
import type { Protocol } from './protocol.js';

/** What the responses of an operation depend on. */
export interface Situation {
  readonly verb: Verb;
  readonly resource: PlacedResource;
  readonly entity: Entity | null;
  /** The entity whose records are written, where that is another one. */
  readonly written: Entity | null;
  /** What it answers when it succeeds. */
  readonly answer: SuccessAnswer;
  /** Whether what is written or made has an address that can be read. */
  readonly isAddressed: boolean;
  readonly hasBody: boolean;
  readonly access: Access;
  readonly protocol: Protocol;
  /** The slot may be empty: it is emptied by DELETE. */
  readonly optionalSlot: boolean;
  /** The slot is filled by PUT. */
  readonly fillsSlot: boolean;
  /** An item that is not there is made by PUT. */
  readonly createsItem: boolean;
  /** Pairs here carry a value. */
  readonly carries: boolean;
  /** What it owns stands inside it and is written with it. */
  readonly holdsOthers: boolean;
  /** The operation of one's own that it is. */
  readonly own: ResolvedCustom | null;
  /** The fixed answer that it gives. */
  readonly fixed: FixedAnswer | null;
  readonly removalCanBeRefused: boolean;
  /** The body may move an attribute along its life cycle. */
  readonly canMove: boolean;
}
