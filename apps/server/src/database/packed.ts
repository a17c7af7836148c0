import { promisify } from 'node:util';
import { deflateRaw, inflateRaw } from 'node:zlib';

const [pack, unpack] = [promisify(deflateRaw), promisify(inflateRaw)];

/** A value as JSON, compressed (RFC 1951), as columns keep what is large and seldom read. */
export const packJson = (value: unknown): Promise<Buffer> => pack(JSON.stringify(value));

export const unpackText = async (packed: Uint8Array): Promise<string> =>
  (await unpack(packed)).toString('utf8');

/** The caller names what was packed. */
export const unpackJson = async <T>(packed: Uint8Array): Promise<T> =>
  JSON.parse(await unpackText(packed)) as T;
