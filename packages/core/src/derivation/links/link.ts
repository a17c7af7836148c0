import type { Link, LinkTarget, Reason } from '../../contract/index.js';
import { because } from '../context.js';

export const link = (relation: string, target: LinkTarget, ...reasons: readonly Reason[]): Link => ({
  relation,
  target,
  reasons,
});

/** The same everywhere, made once. */
export const SELF = link('self', { kind: 'self' }, because('link.self'));
