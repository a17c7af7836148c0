import { promisify } from 'node:util';
import { deflateRaw, inflateRaw } from 'node:zlib';

const [pack, unpack] = [promisify(deflateRaw), promisify(inflateRaw)];

/** A text, compressed (RFC 1951), as columns keep what is large and seldom read. */
export const packText = (text: string): Promise<Buffer> => pack(text);

export const packJson = (value: unknown): Promise<Buffer> => packText(JSON.stringify(value));

export const unpackText = async (packed: Uint8Array): Promise<string> =>
  (await unpack(packed)).toString('utf8');

/** The caller names what was packed. */
export const unpackJson = async <T>(packed: Uint8Array): Promise<T> =>
  JSON.parse(await unpackText(packed)) as T;
