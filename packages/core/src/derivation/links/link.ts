import { linkId, type Link, type LinkTarget, type Reason } from '../../contract/index.js';
import { because } from '../context.js';

export const link = (relation: string, target: LinkTarget, ...reasons: readonly Reason[]): Link => ({
  id: linkId(relation, target),
  relation,
  attributes: null,
  target,
  reasons,
});

/** The same everywhere, made once. */
export const SELF = link('self', { kind: 'self' }, because('link.self'));
