import { readAgain, type TextBlock, type TextSpan } from '../commonMark.js';
import { escaped } from './markup.js';

/** What the page calls the place of an operation. */
export const operationAnchor = (id: string): string => `op-${id}`;

/** A text in CommonMark as HTML, in which nothing is but what is written here. */
export const textHtml = (text: string, isOperation: (id: string) => boolean): string =>
  blocksHtml(readAgain(text, isOperation));

/** The same on one line: in a cell of a table. */
export function lineHtml(text: string, isOperation: (id: string) => boolean): string {
  const blocks = readAgain(text, isOperation);
  const [only] = blocks;
  return blocks.length === 1 && only?.kind === 'paragraph' ? spansHtml(only.spans) : blocksHtml(blocks);
}

const blocksHtml = (blocks: readonly TextBlock[]): string => blocks.map(blockHtml).join('');

function blockHtml(block: TextBlock): string {
  switch (block.kind) {
    case 'paragraph':
      return `<p>${spansHtml(block.spans)}</p>`;
    case 'heading':
      // Headings of the page stand above those of a text.
      return `<p><strong>${spansHtml(block.spans)}</strong></p>`;
    case 'list': {
      const items = block.items.map((inner) => `<li>${blocksHtml(inner)}</li>`).join('');
      return block.start === null ? `<ul>${items}</ul>` : `<ol start="${block.start}">${items}</ol>`;
    }
    case 'quote':
      return `<blockquote>${blocksHtml(block.blocks)}</blockquote>`;
    case 'code':
      return `<pre>${escaped(block.text)}</pre>`;
    case 'rule':
      return '<hr>';
  }
}

const spansHtml = (spans: readonly TextSpan[]): string => spans.map(spanHtml).join('');

function spanHtml(span: TextSpan): string {
  switch (span.kind) {
    case 'text':
      return escaped(span.text);
    case 'code':
      return `<code>${escaped(span.text)}</code>`;
    case 'break':
      return '<br>';
    case 'emphasis':
      return `<em>${spansHtml(span.spans)}</em>`;
    case 'strong':
      return `<strong>${spansHtml(span.spans)}</strong>`;
    case 'link':
      return `<a href="${escaped(span.url)}" rel="noreferrer nofollow">${spansHtml(span.spans)}</a>`;
    case 'operation':
      return `<a href="#${escaped(operationAnchor(span.operation))}"><code>${escaped(span.operation)}</code></a>`;
  }
}
