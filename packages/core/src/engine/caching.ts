import type { Contract } from '../contract/index.js';
import type { Header } from './message.js';

/** Answers may differ by what is accepted, and are checked again before they are used from a cache. */
export const VARY: Header = ['Vary', 'Accept, Accept-Encoding'];
export const REVALIDATED: Header = ['Cache-Control', 'no-cache'];
export const UNSTORED: Header = ['Cache-Control', 'no-store'];

/** An answer that differs by who asks (RFC 9110 §12.5.5, RFC 9111 §5.2.2.7). */
export function privately({ security: { schemes, keyHeader } }: Contract): readonly Header[] {
  const headers = new Set(schemes.map((scheme) => (scheme === 'key' ? keyHeader : 'Authorization')));
  return [
    ['Vary', [VARY[1], ...headers].join(', ')],
    ['Cache-Control', 'private, no-cache'],
  ];
}
