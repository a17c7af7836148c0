import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { importModel, type IntakeFormat } from '@isomeros/core/intake';
import { withRecords } from '@isomeros/core/initialRecords';
import { parse } from '@isomeros/core/notation';
import { expectGoldenText } from '../support/golden.js';
import { unanswered } from '../support/unanswered.js';
import { writtenReport } from '../support/writtenReport.js';

const RUNTIME = {
  now: Date.parse('2026-06-14T09:12:00Z'),
  uuid: () => '00000000-0000-4000-8000-000000000000',
};

const folder = join(import.meta.dirname, 'corpus');
const files = readdirSync(folder).filter((file) => !file.endsWith('.report.txt'));

function formatOf(file: string): IntakeFormat {
  if (file.endsWith('.sql')) return 'sql';
  return file.includes('schema') || file.includes('draft') ? 'json-schema' : 'records';
}

describe('the corpus of sources', () => {
  test.each(files)('%s is read as it was found right', (file) => {
    const source = readFileSync(join(folder, file), 'utf8');
    const intake = withRecords(importModel(formatOf(file), source, file.split('.')[0] ?? ''), RUNTIME);
    expect(parse(intake.text).diagnostics).toEqual([]);
    const lines = source.split('\n').length;
    for (const { found, understood, asked, leftOut } of intake.counts)
      expect(understood + asked + leftOut).toBe(found);
    for (const { line, endLine } of [
      ...intake.understood,
      ...intake.assumed,
      ...intake.asked,
      ...intake.leftOut,
    ]) {
      expect(line).toBeGreaterThanOrEqual(1);
      expect(endLine).toBeGreaterThanOrEqual(line);
      expect(endLine).toBeLessThanOrEqual(lines);
    }
    expectGoldenText(join(folder, `${file}.report.txt`), writtenReport(intake));
  });

  test.each(files)('a mock of what %s is read as answers on every collection', (file) => {
    const source = readFileSync(join(folder, file), 'utf8');
    expect(unanswered(importModel(formatOf(file), source, 'Served').text)).toEqual([]);
  });

  test('every attribute, entity and relationship of a report says why it is there', () => {
    for (const file of files) {
      const intake = importModel(formatOf(file), readFileSync(join(folder, file), 'utf8'), 'Whole');
      const explained = new Set(intake.understood.map(({ statement }) => statement));
      expect([file, Object.keys(intake.places).filter((id) => !explained.has(id))]).toEqual([file, []]);
    }
  });
});
