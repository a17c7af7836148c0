import { readAgain, type TextBlock, type TextSpan } from '../commonMark.js';

/** A text in which no sign means anything (CommonMark §2.4), on one line. */
export const plainMarkdown = (text: string): string =>
  text
    .replace(/[\s\u0085\u2028\u2029]+/g, ' ')
    .replace(/[\\`*_[\]<>&#~|$]/g, '\\$&')
    .replace(
      /^( *)([-+=]|\d+[.)])/,
      (_all, space: string, sign: string) => `${space}${sign.slice(0, -1)}\\${sign.slice(-1)}`,
    );

/** A text as code (CommonMark §6.1), which may stand in a cell of a table. */
export function codeMarkdown(text: string): string {
  const line = text.replace(/[\s\u0085\u2028\u2029]+/g, ' ').replaceAll('|', '\\|');
  const fence = '`'.repeat(longestRun(line) + 1);
  const space = line.startsWith('`') || line.endsWith('`') || line === '' ? ' ' : '';
  return `${fence}${space}${line}${space}${fence}`;
}

/** A block of code between fences longer than any in it (CommonMark §4.5). */
export function fencedMarkdown(text: string, language: string): string {
  const fence = '`'.repeat(Math.max(3, longestRun(text) + 1));
  return `${fence}${language}\n${text}\n${fence}`;
}

const longestRun = (text: string): number =>
  (text.match(/`+/g) ?? []).reduce((longest, { length }) => Math.max(longest, length), 0);

/** A text in CommonMark written again, so that it ends where it ends: its headings are strong text, its HTML is text. */
export const textMarkdown = (text: string, isOperation: (id: string) => boolean): string =>
  blocksMarkdown(readAgain(text, isOperation));

/** The same on one line: in a cell of a table. */
export const lineMarkdown = (text: string, isOperation: (id: string) => boolean): string =>
  textMarkdown(text, isOperation)
    .replace(/\s*\n\s*/g, ' ')
    .replace(/(?<!\\)\|/g, '\\|');

const blocksMarkdown = (blocks: readonly TextBlock[]): string => blocks.map(blockMarkdown).join('\n\n');

const indented = (text: string, first: string): string =>
  text
    .split('\n')
    .map((line, at) => (at === 0 ? first + line : line === '' ? '' : ' '.repeat(first.length) + line))
    .join('\n');

function blockMarkdown(block: TextBlock): string {
  switch (block.kind) {
    case 'paragraph':
      return spansMarkdown(block.spans);
    case 'heading':
      return `**${spansMarkdown(block.spans)}**`;
    case 'list':
      return block.items
        .map((inner, at) =>
          indented(blocksMarkdown(inner), block.start === null ? '- ' : `${block.start + at}. `),
        )
        .join('\n');
    case 'quote':
      return blocksMarkdown(block.blocks)
        .split('\n')
        .map((line) => `> ${line}`)
        .join('\n');
    case 'code':
      return fencedMarkdown(block.text, '');
    case 'rule':
      return '* * *';
  }
}

const spansMarkdown = (spans: readonly TextSpan[]): string => spans.map(spanMarkdown).join('');

function spanMarkdown(span: TextSpan): string {
  switch (span.kind) {
    case 'text':
      return plainMarkdown(span.text);
    case 'code':
      return codeMarkdown(span.text);
    case 'break':
      return '\\\n';
    case 'emphasis':
      return `*${spansMarkdown(span.spans)}*`;
    case 'strong':
      return `**${spansMarkdown(span.spans)}**`;
    case 'link':
      return `[${spansMarkdown(span.spans)}](<${span.url.replace(/[<>\\]/g, encodeURIComponent)}>)`;
    case 'operation':
      return codeMarkdown(span.operation);
  }
}
