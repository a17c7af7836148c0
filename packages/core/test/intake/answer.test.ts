import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { answer, importModel, type Intake } from '@isomeros/core/intake';
import { parse } from '@isomeros/core/notation';

const folder = join(import.meta.dirname, 'corpus');
const corpus = (file: string): string => readFileSync(join(folder, file), 'utf8');

function choose(intake: Intake, question: string, label: string): string {
  const index = intake.asked.findIndex((asked) => asked.question === question);
  const option = intake.asked[index]?.options.findIndex((candidate) => candidate.label === label) ?? -1;
  if (option < 0) throw new Error(`${question} has no answer ${label}.`);
  return answer(intake, { [index]: option }).text;
}

describe('what one record is', () => {
  const question = 'What is one of these records?';
  const LIST = '[{ "id": 1, "name": "Ada" }]';
  const SCHEMA = '{ "type": "object", "properties": { "id": { "type": "string", "format": "uuid" } } }';

  test.each([
    ['records', LIST, 'crew member', 'CrewMember'],
    ['records', LIST, 'Harbours', 'Harbour'],
    ['records', 'id,name\n1,Ada\n', '', 'Record'],
    ['json-schema', SCHEMA, 'berth', 'Berth'],
  ] as const)(
    'is asked where the source does not say, and taken as it is said: %s %s %s',
    (format, source, record, name) => {
      const { asked, text } = importModel(format, source, 'All', { record });
      expect(asked.find((one) => one.question === question)?.record).toBe(name);
      expect(text).toContain(`entity ${name}\n`);
    },
  );

  test.each([
    ['records', '{ "crew": [{ "id": 1 }], "routes": [{ "id": 2 }] }', 'entity Route\n'],
    ['json-schema', SCHEMA.replace('{', '{ "title": "Berth",'), 'entity Berth\n'],
  ] as const)('is not asked where the source says it: %s %s', (format, source, line) => {
    const { asked, text } = importModel(format, source, 'All', { record: 'Thing' });
    expect(asked.map((one) => one.question)).not.toContain(question);
    expect(text).toContain(line);
  });
});

describe('answers to what an intake asks', () => {
  const shore = importModel('sql', corpus('shore-office.sql'), 'Shore');

  test.each([
    [
      'Can a Sailing exist without its Route?',
      'yes, it refers to it',
      'each Sailing refers to one Route as route, back as sailings',
    ],
    ['May pinHash ever be returned?', 'yes', '  pinHash: text\n'],
    ['Can what is referred to list what refers to it?', 'no', 'each Route refers to one Harbour as origin\n'],
  ])('%s %s', (question, label, line) => {
    expect(shore.text).not.toContain(line);
    expect(choose(shore, question, label)).toContain(line);
  });

  test('what is left out is gone', () => {
    expect(choose(shore, 'May pinHash ever be returned?', 'leave it out')).not.toContain('pinHash');
  });

  test('an assumption that stands changes nothing', () => {
    expect(answer(shore, {}).text).toBe(shore.text);
    expect(answer(shore, { 0: 0 }).text).toBe(shore.text);
  });

  test.each(readdirSync(folder).filter((file) => !file.endsWith('.report.txt')))(
    'every answer to everything %s leaves open gives a sound text',
    (file) => {
      const format = file.endsWith('.sql') ? 'sql' : /schema|draft/.test(file) ? 'json-schema' : 'records';
      const intake = importModel(format, corpus(file), 'All');
      intake.asked.forEach(({ options }, question) =>
        options.forEach((_option, option) => {
          expect(parse(answer(intake, { [question]: option }).text).diagnostics).toEqual([]);
        }),
      );
      const last = Object.fromEntries(intake.asked.map(({ options }, index) => [index, options.length - 1]));
      expect(parse(answer(intake, last).text).diagnostics).toEqual([]);
    },
  );
});
