import { words } from './names.js';

/** What is secret wherever it stands in a name. */
const SECRETS: ReadonlySet<string> = new Set([
  'password',
  'passwd',
  'pwd',
  'passphrase',
  'passcode',
  'secret',
  'otp',
  'totp',
]);
/** What is secret at the end of a name. */
const SECRET_ENDS: ReadonlySet<string> = new Set([
  'pin',
  'token',
  'hash',
  'salt',
  'apikey',
  'cvc',
  'cvv',
  'credential',
]);
const SECRET_PAIRS: ReadonlySet<string> = new Set([
  'api key',
  'access key',
  'private key',
  'signing key',
  'encryption key',
  'session key',
  'auth key',
  'pin code',
  'backup code',
  'recovery code',
  'reset code',
  'verification code',
  'pass code',
  'pass phrase',
  'pass word',
  'token digest',
]);
/** What a name ends with that is about a secret, and is none. */
const ABOUT: ReadonlySet<string> = new Set([
  ...['at', 'on', 'date', 'time', 'until', 'expiry', 'expiration', 'expires', 'changed', 'updated', 'age'],
  ...['count', 'attempt', 'length', 'policy', 'hint', 'required', 'enabled', 'expired', 'reset', 'question'],
  ...['id', 'name', 'type', 'kind', 'level', 'url', 'uri', 'status', 'version', 'algorithm', 'method'],
]);

const inSingular = (word: string): string => word.replace(/(?<=[^s])s$/, '');

/** Whether a name says that its value must never be shown: `password`, `resetToken`, `api_key_hash`, `otpSecrets`. */
export function isSecretName(name: string): boolean {
  const all = words(name).map(inSingular);
  const last = all.at(-1) ?? '';
  if (ABOUT.has(last)) return false;
  return (
    SECRET_ENDS.has(last) ||
    all.some((word, at) => isSecretWord(word) || SECRET_PAIRS.has(`${word} ${all[at + 1] ?? ''}`))
  );
}

/** `passwordhash` is two words that are written as one. */
const isSecretWord = (word: string): boolean => SECRETS.has(word) || /^pass(word|wd)/.test(word);

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
