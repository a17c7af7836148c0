import type { Operand } from '../arrangement/index.js';
import type { Json, ScalarType } from '../model/index.js';
import type { OwnField } from './operation.js';
import type { Reasons } from './reasons.js';
import type { Via } from './via.js';

export type ShapePurpose =
  | 'item'
  | 'member'
  | 'page'
  | 'entry'
  | 'create'
  | 'replace'
  | 'change'
  | 'inline'
  | 'input'
  | 'value'
  | 'token'
  | 'counts'
  | 'aggregate'
  | 'fixed';

/** A JSON object as a client sends or receives it. */
export interface Shape {
  /** Unique in the contract: `Sailing`, `SailingCreate`. */
  readonly name: string;
  readonly purpose: ShapePurpose;
  /** The name of the entity or value it shows. */
  readonly of: string | null;
  readonly members: readonly Member[];
  readonly reasons: Reasons;
}

/**
 * How a body may carry a member. `accepted`: stored. `moved`: stored where a transition leads there. `ignored`:
 * may be sent back, has no effect. `must-equal`: may be sent back with the value it has. `returned`: only in
 * answers.
 */
export type MemberMode = 'accepted' | 'moved' | 'ignored' | 'must-equal' | 'returned';

export interface Member {
  readonly name: string;
  readonly mode: MemberMode;
  readonly required: boolean;
  readonly nullable: boolean;
  readonly type: MemberType;
  readonly source: MemberSource;
  readonly description: string | null;
  readonly default: Json;
  readonly example: Json;
  /** Where it is `moved`: the identities of the transitions that may move it. */
  readonly transitions?: readonly string[];
  readonly reasons: Reasons;
}

export type MemberSource =
  | OwnField
  | Expanded
  /** The record in a slot of the one that is written or shown. */
  | { readonly kind: 'slot'; readonly relationship: string; readonly entity: string }
  /** What is owned and stands inside its owner: an array of them, or one in a slot. */
  | {
      readonly kind: 'inline';
      readonly relationship: string;
      readonly entity: string;
      readonly isMany: boolean;
      /** Whether new ones can be made here. */
      readonly takesNew: boolean;
    }
  /** What the pair carries by which the record is listed. */
  | { readonly kind: 'carried'; readonly relationship: string }
  | { readonly kind: 'links' }
  | { readonly kind: 'items' }
  | { readonly kind: 'page' }
  | SentOnly
  /** A part of a token that is handed out (RFC 6749 §5.1). */
  | { readonly kind: 'token'; readonly part: 'secret' | 'type' | 'seconds' }
  /** How many records an action on many was about, or changed. */
  | { readonly kind: 'count'; readonly of: 'found' | 'changed' }
  /** What an aggregate comes to. */
  | { readonly kind: 'aggregate' }
  /** A part of what is always the same. */
  | { readonly kind: 'fixed' };

/** Something that is sent and that no record stores. */
export interface SentOnly {
  readonly kind: 'input';
  /** Then it is written down nowhere. */
  readonly isSecret: boolean;
  /** What it is where it is not sent. */
  readonly usual: Operand | null;
  /** The member of the same body that it must equal. */
  readonly equals: string | null;
}

/** Related records, inside an answer where they are asked for. */
export interface Expanded {
  readonly kind: 'expanded';
  readonly relationship: string;
  /** The way from the record to them: the `Via` of their list, or to the owner, or to what a reference points at. */
  readonly way: 'owner' | Via['direction'];
  /** The name of their entity. */
  readonly entity: string;
  /** The link relation under which they are linked and embedded. */
  readonly relation: string;
  /** At most so many of them; `null` where there is one at most. */
  readonly limit: number | null;
  /** Whether an answer has it without being asked. */
  readonly isAlways: boolean;
}

export type MemberType =
  | ScalarType
  | { readonly kind: 'json' }
  | { readonly kind: 'shape'; readonly shape: string }
  | {
      readonly kind: 'list';
      readonly of: MemberType;
      readonly min: number | null;
      readonly max: number | null;
    }
  /** A JSON object from relation to link. */
  | { readonly kind: 'links' }
  /**
   * Where a page stands: its number and size, or its offset and limit, and totals where they are counted; `variant` is
   * that of the form of its list.
   */
  | { readonly kind: 'page'; readonly variant: string };
