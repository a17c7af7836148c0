import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { describe, expect, test } from '@jest/globals';
import { readContract, writeContract, type Contract } from '@isomeros/core/contract';
import { compare } from '@isomeros/core/comparison';
import { openApiDocument } from '@isomeros/core/publication';
import { contractDigest } from '../support/contractDigest.js';
import { derive } from '@isomeros/core/derivation';
import { arrangedWith, type OperationLine } from '../support/lines.js';
import { MAIN } from '../support/arrangement.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { withoutTagTexts } from '../support/documentation.js';

const folder = join(import.meta.dirname, '../golden/format-2');
/** The contract of a text as a version of format 2 kept it in a release. */
const kept = gunzipSync(readFileSync(join(folder, 'kestrel-contract.json.gz'))).toString();
const text = readFileSync(join(folder, 'kestrel.iso.txt'), 'utf8');

describe('a contract that was kept in format 2', () => {
  const before = readContract(kept);
  const mock = new TestMock(modelOf(text), {}, MAIN);
  const today = withoutTagTexts(mock.service.contract);
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

describe('a contract that was kept in format 4', () => {
  const from = join(import.meta.dirname, '../golden/format-4');
  const model = modelOf(readFileSync(join(from, 'keepers.iso.txt'), 'utf8'));
  const lines = JSON.parse(
    readFileSync(join(from, 'keepers.lines.json'), 'utf8'),
  ) as readonly OperationLine[];
  const before = readContract(gunzipSync(readFileSync(join(from, 'keepers-contract.json.gz'))).toString());
  const today = withoutTagTexts(
    derive(model, arrangedWith(model, lines, { security: ['bearer'], queryBy: 'both' })),
  );

  test('is the one that is derived today from the same lines', () => {
    expect(before).toEqual(today);
  });

  test('is served, described and compared like any other', () => {
    expect(openApiDocument(before)).toEqual(openApiDocument(today));
    expect(compare({ kind: 'draft', contract: before }, { kind: 'draft', contract: today }).changes).toEqual(
      [],
    );
  });
});
