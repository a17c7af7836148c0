import type { Intake } from '@isomeros/core/intake';

/** A report as a text that is easy to read over. */
export function writtenReport({
  problem,
  text,
  understood,
  assumed,
  asked,
  leftOut,
  counts,
}: Intake): string {
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
    '# Because',
    ...because,
    '',
  ]
    .join('\n')
    .replace(/\n{3,}/g, '\n\n');
}
