import { memoize } from '../model/index.js';
import { header, type HeaderUse } from './header.js';
import { indexContract } from './lookup.js';
import type { Operation, ResponseCase, ResponseCode } from './operation.js';
import type { Member, Shape } from './shape.js';
import type { Contract } from './types.js';

type Stored = 'checked again' | 'by its reader' | 'never';

/** What an answer says to those who keep it (RFC 9111), and by what it differs (RFC 9110 §12.5.5). */
export function cachingHeaders(
  { security }: Contract,
  { method, custom }: Operation,
  cases: readonly ResponseCase[],
  hasState: boolean,
): readonly HeaderUse[] {
  if (cases.some(({ status }) => status >= 400)) return [control('never')];
  if (custom?.kind === 'verify' && has(cases, 'ok'))
    return [control('never'), header('Pragma', 'The same for caches of HTTP/1.0 (RFC 9111 §5.4).')];
  if (method !== 'GET' || !has(cases, 'ok', 'not-modified')) return [];
  const isOwn = custom?.kind === 'caller';
  const credentials = isOwn && security.schemes.length > 0 ? ', or credentials' : '';
  return [
    header('Vary', `It differs where other types or codings are accepted${credentials} (RFC 9110 §12.5.5).`),
    control(isOwn ? 'by its reader' : hasState ? 'checked again' : 'never'),
  ];
}

const has = (cases: readonly ResponseCase[], ...codes: readonly ResponseCode[]): boolean =>
  cases.some(({ code }) => codes.includes(code));

const CONTROL: Readonly<Record<Stored, string>> = {
  'checked again': 'It may be stored, and is asked for again before it is used (RFC 9111 §5.2.2.4).',
  'by its reader': 'Only its reader may store it (RFC 9111 §5.2.2.7).',
  never: 'It is not to be stored (RFC 9111 §5.2.2.5).',
};

const control = (stored: Stored): HeaderUse => header('Cache-Control', CONTROL[stored]);

/**
 * The member that tells when a record was changed last, by its shape in answers: an instant that the server sets at
 * every change. `null` where it has none, and where what is computed from other records changes without it.
 */
export const modifiedMember = memoize(({ members }: Shape): Member | null => {
  if (members.some(({ source }) => source.kind === 'computed' && source.reads === 'others')) return null;
  const isTouched = ({ source, type, reasons }: Member): boolean =>
    source.kind === 'attribute' &&
    type.kind === 'instant' &&
    reasons.some(({ rule }) => rule === 'member.touched');
  return members.find(isTouched) ?? null;
});

/** When the record of an answer was changed last (RFC 9110 §8.8.2). */
export function modifiedHeader(contract: Contract, { resource }: Operation): readonly HeaderUse[] {
  const { resources, shapes } = indexContract(contract);
  const shape = shapes.get(resources.get(resource)?.entity ?? '');
  return shape === undefined || modifiedMember(shape) === null
    ? []
    : [header('Last-Modified', 'When the record was changed last (RFC 9110 §8.8.2).')];
}
