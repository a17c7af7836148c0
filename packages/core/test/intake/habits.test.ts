import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { readSql } from '@isomeros/core/intake';
import { withRecords } from '@isomeros/core/initialRecords';
import { parse } from '@isomeros/core/notation';
import { expectGoldenText } from '../support/golden.js';
import { unanswered } from '../support/unanswered.js';
import { writtenReport } from '../support/writtenReport.js';

const RUNTIME = {
  now: Date.parse('2026-06-14T09:12:00Z'),
  uuid: () => '00000000-0000-4000-8000-000000000000',
};

const folder = join(import.meta.dirname, 'habits');
const files = readdirSync(folder).filter((file) => file.endsWith('.sql'));

describe('the habits of real files', () => {
  test.each(files)('%s is read as it was written down by hand', (file) => {
    const intake = withRecords(readSql(readFileSync(join(folder, file), 'utf8'), 'Habits'), RUNTIME);
    expect(parse(intake.text).diagnostics).toEqual([]);
    for (const { found, understood, asked, leftOut } of intake.counts)
      expect(understood + asked + leftOut).toBe(found);
    expectGoldenText(join(folder, file.replace('.sql', '.report.txt')), writtenReport(intake));
  });

  test.each(files)('a mock of what %s is read as answers on every collection', (file) => {
    expect(unanswered(readSql(readFileSync(join(folder, file), 'utf8'), 'Served').text)).toEqual([]);
  });
});
