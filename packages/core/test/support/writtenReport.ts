import { completeModel, NO_CHOICES } from '@isomeros/core/arrangement';
import { namedRecords, type IntakeWithRecords } from '@isomeros/core/initialRecords';
import type { Json } from '@isomeros/core/model';

/** A report as a text that is easy to read over. */
export function writtenReport({
  problem,
  model,
  text,
  understood,
  assumed,
  asked,
  leftOut,
  counts,
  rows,
}: IntakeWithRecords): string {
  const because = [...understood]
    .sort((a, b) => a.line - b.line || a.statement.localeCompare(b.statement))
    .map(({ line, endLine, statement, because: why }) => `${line}-${endLine} ${statement}: ${why}`);
  const questions = asked.map(
    ({ line, question, ground, options }) =>
      `${line} ${question} ${options.map(({ label, assumed }) => (assumed ? `[${label}]` : label)).join(' | ')}\n   ${ground}`,
  );
  const taken = assumed.map(({ line, assumption, ground }) => `${line} ${assumption}\n   ${ground}`);
  const sums = counts.map(
    ({ kind, found, understood: said, asked: open, leftOut: out }) =>
      `${kind}: ${found} = ${said} understood + ${open} asked + ${out} left out`,
  );
  const left = leftOut.map(({ line, source, why }) => `${line} ${source}\n   ${why}`);
  const records = Object.entries(namedRecords(completeModel(model, NO_CHOICES), rows)).flatMap(
    ([type, own]) => (own as readonly Json[]).map((record) => `${type} ${JSON.stringify(record)}`),
  );
  return [
    problem ?? 'read',
    text,
    '# Counts',
    ...sums,
    '',
    '# Assumed',
    ...taken,
    '',
    '# Asked',
    ...questions,
    '',
    '# Left out',
    ...left,
    '',
    ...(records.length === 0 ? [] : ['# Records', ...records, '']),
    '# Because',
    ...because,
    '',
  ]
    .join('\n')
    .replace(/\n{3,}/g, '\n\n');
}
