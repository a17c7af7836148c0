import { hmac } from '@noble/hashes/hmac.js';
import { sha256 } from '@noble/hashes/sha2.js';
import { utf8ToBytes } from '@noble/hashes/utils.js';
import { base64urlnopad } from '@scure/base';
import type { Contract } from '../contract/index.js';
import { memoize } from '../model/index.js';

/** So many characters of a digest tell texts apart for good: 96 bits. */
export const DIGEST_LENGTH = 16;

const short = (bytes: Uint8Array): string => base64urlnopad.encode(bytes).slice(0, DIGEST_LENGTH);

/** A short text that differs where texts differ: SHA-256 (FIPS 180-4), cut to 96 bits, in base64url. */
export const digestOf = (text: string): string => short(sha256(utf8ToBytes(text)));

/** What is stored of a token, which is random and long: all of its SHA-256, in base64url. */
export const tokenDigestOf = (token: string): string => base64urlnopad.encode(sha256(utf8ToBytes(token)));

/** The same with a key, so that only who has it can make one: HMAC-SHA-256 (RFC 2104). */
export const signatureOf = (secret: string, text: string): string =>
  short(hmac(sha256, utf8ToBytes(secret), utf8ToBytes(text)));

/** Differs where anything differs that a client can see of a contract; the reasons are left aside. */
export const contractDigest = memoize((contract: Contract): string => {
  const { findings: _findings, assumptions: _assumptions, ...seen } = contract;
  return digestOf(JSON.stringify(seen, (name, value: unknown) => (name === 'reasons' ? undefined : value)));
});

/** The beginning of its digest, which tags of records carry. */
export const contractMark = memoize((contract: Contract): string => contractDigest(contract).slice(0, 8));
