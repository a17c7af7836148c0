import {
  leavableAs,
  type Effect,
  type Method,
  type OutlineResource,
  type Verb,
} from '@isomeros/core/contract';
import { LEAVABLE, type Leavable } from '@isomeros/core/arrangement';
import type { OutlineRow } from './outlineRows.js';

/** What a path can do, whether it is offered or left out. */
export interface AbleTo {
  readonly verb: Verb;
  readonly method: Method;
  readonly effect: Effect;
  /** The name of the operation; `null` where it is left out. */
  readonly id: string | null;
  /** As what it can be left out; `null` where it cannot. */
  readonly leavable: Leavable | null;
}

type Row = Pick<OutlineRow, 'operations'> & { readonly resource: Pick<OutlineResource, 'kind' | 'leftOut'> };

const place = ({ leavable }: AbleTo): number => (leavable === null ? -1 : LEAVABLE.indexOf(leavable));

/** The operations of a path and those that are left out of it, in the order they always have. */
export const operationsOf = ({ operations, resource }: Row): readonly AbleTo[] =>
  [
    ...operations.map(({ verb, method, effect, id }) => ({ verb, method, effect, id })),
    ...resource.leftOut.map(({ verb, method, effect }) => ({ verb, method, effect, id: null })),
  ]
    .map((one) => ({ ...one, leavable: leavableAs(resource, one.verb) }))
    .sort((a, b) => place(a) - place(b));
