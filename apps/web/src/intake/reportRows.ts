import type { SourceLines, Understood } from '@isomeros/core/intake';
import type { IntakeView } from './protocol.js';

/** What of an intake the two sides show. */
type ReportParts = Pick<IntakeView, 'text' | 'places' | 'understood' | 'leftOut' | 'asked'>;

/** One line of the source with what became of it. */
export interface SourceRow {
  readonly key: string;
  readonly line: number;
  readonly text: string;
  readonly understood: boolean;
  readonly leftOut: boolean;
  /** Numbers of the questions that begin here, from 1. */
  readonly asked: readonly number[];
}

/** One line of the model with where it is from. */
export interface UnderstoodRow {
  readonly key: string;
  readonly line: number;
  readonly text: string;
  readonly because: string;
  /** What it stands in: an entity or value, or all relationships together. */
  readonly block: string;
  readonly from: SourceLines | null;
}

export interface ReportRows {
  readonly source: readonly SourceRow[];
  readonly understood: readonly UnderstoodRow[];
}

/** The two sides of a report, line by line. Linear in both texts. */
export function reportRows(source: string, intake: ReportParts): ReportRows {
  return { source: sourceRows(source, intake), understood: understoodRows(intake) };
}

function sourceRows(source: string, { understood, leftOut, asked }: ReportParts): readonly SourceRow[] {
  const texts = source.replace(/\r?\n$/, '').split(/\r?\n/);
  const isUnderstood = covered(texts.length, understood);
  const isLeftOut = covered(texts.length, leftOut);
  const ownLines = new Set(understood.flatMap(({ line, endLine }) => (line === endLine ? [line] : [])));
  const questions = new Map<number, number[]>();
  asked.forEach(({ line }, index) => questions.set(line, [...(questions.get(line) ?? []), index + 1]));
  return texts.map((text, index) => ({
    key: String(index + 1),
    line: index + 1,
    text,
    understood: isUnderstood[index] === true,
    // A line that holds both was understood in part: it is not struck out as a whole.
    leftOut: isLeftOut[index] === true && !ownLines.has(index + 1),
    asked: questions.get(index + 1) ?? [],
  }));
}

function covered(length: number, parts: readonly SourceLines[]): boolean[] {
  const steps = new Array<number>(length + 2).fill(0);
  for (const { line, endLine } of parts) {
    steps[line] = (steps[line] ?? 0) + 1;
    steps[endLine + 1] = (steps[endLine + 1] ?? 0) - 1;
  }
  let open = 0;
  return Array.from({ length }, (_, index) => {
    open += steps[index + 1] ?? 0;
    return open > 0;
  });
}

function understoodRows({ text, understood, places }: ReportParts): readonly UnderstoodRow[] {
  const byStatement = new Map(understood.map((part) => [part.statement, part]));
  const byLine = new Map<number, Understood>();
  for (const [statement, { line }] of Object.entries(places)) {
    const part = byStatement.get(statement);
    if (part !== undefined) byLine.set(line, part);
  }
  let block = 'Design';
  return text
    .replace(/\n$/, '')
    .split('\n')
    .flatMap((line, index): UnderstoodRow[] => {
      if (line === '') return [];
      block = blockOf(line) ?? block;
      const part = byLine.get(index + 1);
      const from = part === undefined ? null : { line: part.line, endLine: part.endLine };
      return [
        { key: String(index + 1), line: index + 1, text: line, because: part?.because ?? '', block, from },
      ];
    });
}

/** The block that a line begins; `null` where it goes on with one. */
function blockOf(line: string): string | null {
  if (line.startsWith('each ')) return 'Relationships';
  return /^(?:entity|value) (\S+)/.exec(line)?.[1] ?? null;
}
