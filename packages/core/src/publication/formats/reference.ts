import { referenceContent } from '../reference/content.js';
import { referenceHtml } from '../reference/html.js';
import { referenceMarkdown } from '../reference/markdown.js';
import type { PublicationFormat } from './format.js';

export const REFERENCE_FORMATS = {
  'reference.html': {
    title: 'Reference, HTML',
    mediaType: 'text/html; charset=utf-8',
    write: (source) => referenceHtml(referenceContent(source)),
    cannotSay: () => [],
  },
  'reference.md': {
    title: 'Reference, Markdown',
    mediaType: 'text/markdown; charset=utf-8',
    write: (source) => referenceMarkdown(referenceContent(source)),
    cannotSay: () => [],
  },
} as const satisfies Readonly<Record<string, PublicationFormat>>;
