import { linkId, type Link, type DerivedTarget, type Reason } from '../../contract/index.js';
import { because } from '../context.js';

/** A link that rules derive. */
export interface DerivedLink extends Link {
  readonly target: DerivedTarget;
}

export const link = (
  relation: string,
  target: DerivedTarget,
  ...reasons: readonly Reason[]
): DerivedLink => ({
  id: linkId(relation, target),
  relation,
  attributes: null,
  in: null,
  was: null,
  target,
  reasons,
});

/** The same everywhere, made once. */
export const SELF = link('self', { kind: 'self' }, because('link.self'));
