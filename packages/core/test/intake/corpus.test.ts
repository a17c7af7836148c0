import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { importModel, type Intake, type IntakeFormat } from '@isomeros/core/intake';
import { parse } from '@isomeros/core/notation';
import { expectGoldenText } from '../support/golden.js';

const folder = join(import.meta.dirname, 'corpus');
const files = readdirSync(folder).filter((file) => !file.endsWith('.report.txt'));

function formatOf(file: string): IntakeFormat {
  if (file.endsWith('.sql')) return 'sql';
  return file.includes('schema') || file.includes('draft') ? 'json-schema' : 'records';
}

/** A report as a text that is easy to read over. */
function written({ problem, text, understood, asked, leftOut }: Intake): string {
  const because = [...understood]
    .sort((a, b) => a.line - b.line || a.statement.localeCompare(b.statement))
    .map(({ line, endLine, statement, because: why }) => `${line}-${endLine} ${statement}: ${why}`);
  const questions = asked.map(
    ({ line, question, ground, options }) =>
      `${line} ${question} ${options.map(({ label, assumed }) => (assumed ? `[${label}]` : label)).join(' | ')}\n   ${ground}`,
  );
  const left = leftOut.map(({ line, source, why }) => `${line} ${source}\n   ${why}`);
  return [
    problem ?? 'read',
    text,
    '# Asked',
    ...questions,
    '',
    '# Left out',
    ...left,
    '',
    '# Because',
    ...because,
    '',
  ]
    .join('\n')
    .replace(/\n{3,}/g, '\n\n');
}

describe('the corpus of sources', () => {
  test.each(files)('%s is read as it was found right', (file) => {
    const source = readFileSync(join(folder, file), 'utf8');
    const intake = importModel(formatOf(file), source, file.split('.')[0] ?? '');
    expect(parse(intake.text).diagnostics).toEqual([]);
    const lines = source.split('\n').length;
    for (const { line, endLine } of [...intake.understood, ...intake.asked, ...intake.leftOut]) {
      expect(line).toBeGreaterThanOrEqual(1);
      expect(endLine).toBeGreaterThanOrEqual(line);
      expect(endLine).toBeLessThanOrEqual(lines);
    }
    expectGoldenText(join(folder, `${file}.report.txt`), written(intake));
  });

  test('every attribute, entity and relationship of a report says why it is there', () => {
    for (const file of files) {
      const intake = importModel(formatOf(file), readFileSync(join(folder, file), 'utf8'), 'Whole');
      const explained = new Set(intake.understood.map(({ statement }) => statement));
      expect([file, Object.keys(intake.places).filter((id) => !explained.has(id))]).toEqual([file, []]);
    }
  });
});
