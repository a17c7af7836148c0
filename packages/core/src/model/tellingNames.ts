import { words } from './names.js';

const SECRETS: ReadonlySet<string> = new Set([
  'password',
  'passwd',
  'pwd',
  'passphrase',
  'passcode',
  'pin',
  'secret',
  'token',
  'apikey',
  'cvc',
  'cvv',
]);
const SECRET_PAIRS: ReadonlySet<string> = new Set([
  'api key',
  'access key',
  'private key',
  'pin code',
  'pass code',
  'pass phrase',
  'pass word',
]);

/** Whether a name says that its value must never be shown: `password`, `resetToken`, `api_key_hash`. */
export function isSecretName(name: string): boolean {
  const all = words(name);
  const said = all.at(-1) === 'hash' || all.at(-1) === 'digest' ? all.slice(0, -1) : all;
  return SECRETS.has(said.at(-1) ?? '') || SECRET_PAIRS.has(said.slice(-2).join(' '));
}

/** When the server sets an instant, by what it is called: once, or at every change; `null` where the name does not say. */
export function setByServer(name: string): 'once' | 'at every change' | null {
  const [first = '', ...others] = words(name);
  const isWhole = others.length === 0 || (others.length === 1 && MOMENTS.has(others[0] ?? ''));
  if (!isWhole) return null;
  if (MADE.has(first)) return 'once';
  return CHANGED.has(first) ? 'at every change' : null;
}

const MOMENTS: ReadonlySet<string> = new Set(['at', 'on', 'date', 'time', 'timestamp']);
const MADE: ReadonlySet<string> = new Set(['created', 'made', 'inserted', 'added', 'registered']);
const CHANGED: ReadonlySet<string> = new Set(['updated', 'changed', 'modified', 'touched']);

/** Whether a name says that a uuid is nothing but an identity, which servers make. */
export const isIdentityName = (name: string): boolean => IDENTITIES.has(words(name).join(' '));

const IDENTITIES: ReadonlySet<string> = new Set(['id', 'uuid', 'guid', 'uid']);
