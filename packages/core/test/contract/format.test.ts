import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { describe, expect, test } from '@jest/globals';
import { readContract, writeContract, type Contract } from '@isomeros/core/contract';
import { compare } from '@isomeros/core/comparison';
import { openApiDocument } from '@isomeros/core/publication';
import { contractDigest } from '../support/contractDigest.js';
import { MAIN } from '../support/arrangement.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { kestrelText } from '../support/samples.js';

/** The contract of the sample as a version of format 2 kept it in a release. */
const kept = gunzipSync(
  readFileSync(join(import.meta.dirname, '../golden/format-2/kestrel-contract.json.gz')),
).toString();

describe('a contract that was kept in format 2', () => {
  const before = readContract(kept);
  const mock = new TestMock(modelOf(kestrelText), {}, MAIN);
  const today = mock.service.contract;
  const facts = (contract: Contract): string => contractDigest(contract).split('\nsha256')[0] ?? '';

  test('offers what it offered', () => {
    expect(facts(before)).toBe(facts(today));
    expect(openApiDocument(before)).toEqual(openApiDocument(today));
    expect(before.resources.every(({ leftOut }) => leftOut.length === 0)).toBe(true);
  });

  test('differs in nothing from the one that is derived today', () => {
    expect(compare({ kind: 'draft', contract: before }, { kind: 'draft', contract: today }).changes).toEqual(
      [],
    );
  });

  test('is read as it is written today', () => {
    expect(readContract(writeContract(before))).toEqual(before);
  });
});
