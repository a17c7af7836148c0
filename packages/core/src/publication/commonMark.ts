import type { Definition, Nodes, PhrasingContent, RootContent } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { splitAtOperations } from '../contract/index.js';
import { entryOf, memoize } from '../model/index.js';

/** A block of a text. Whoever shows it needs to take care of nothing: what is not safe to show is text here. */
export type TextBlock =
  | { readonly kind: 'paragraph'; readonly spans: readonly TextSpan[] }
  /** `depth`: 1 to 6. */
  | { readonly kind: 'heading'; readonly depth: number; readonly spans: readonly TextSpan[] }
  /** `start`: the first number; `null` where items have none. */
  | {
      readonly kind: 'list';
      readonly start: number | null;
      readonly items: readonly (readonly TextBlock[])[];
    }
  | { readonly kind: 'quote'; readonly blocks: readonly TextBlock[] }
  | { readonly kind: 'code'; readonly text: string }
  | { readonly kind: 'rule' };

export type TextSpan =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'code'; readonly text: string }
  | { readonly kind: 'break' }
  | { readonly kind: 'emphasis' | 'strong'; readonly spans: readonly TextSpan[] }
  /** Of the schemes http, https and mailto. */
  | { readonly kind: 'link'; readonly url: string; readonly spans: readonly TextSpan[] }
  /** The id of an operation. */
  | { readonly kind: 'operation'; readonly operation: string };

/** Deeper than anybody writes; what is nested deeper is shown as it is written. */
const DEEPEST = 24;
const NESTED_DEEPER = new RegExp(`^(?:[ \\t]*>){${DEEPEST + 1}}`, 'm');

const SAFE_URL = /^(?:https?:\/\/|mailto:)[^\s\u0000-\u001f]+$/i;

interface Reading {
  readonly text: string;
  readonly definitions: ReadonlyMap<string, Definition>;
  readonly isOperation: (id: string) => boolean;
}

/**
 * Reads CommonMark 0.31 so that it can be shown safely: HTML is text, an image is a link to it, a link of another scheme
 * is the text it was written as. `[listRoutes]` is a link to that operation where there is one.
 */
export function readCommonMark(
  text: string,
  isOperation: (id: string) => boolean = () => false,
): readonly TextBlock[] {
  if (NESTED_DEEPER.test(text)) return [{ kind: 'paragraph', spans: [{ kind: 'text', text }] }];
  const { children } = fromMarkdown(text);
  const definitions = new Map<string, Definition>();
  for (const node of children)
    if (node.type === 'definition' && !definitions.has(node.identifier))
      definitions.set(node.identifier, node);
  return blocksOf(children, { text, definitions, isOperation }, 0);
}

const readBefore = memoize<(id: string) => boolean, Map<string, readonly TextBlock[]>>(() => new Map());

/** The same, read once where a text comes again; `isOperation` is the same function for all texts of a document. */
export const readAgain = (text: string, isOperation: (id: string) => boolean): readonly TextBlock[] =>
  entryOf(readBefore(isOperation), text, () => readCommonMark(text, isOperation));

/** What a node was written as. */
const written = ({ position }: Nodes, { text }: Reading): string =>
  position === undefined ? '' : text.slice(position.start.offset, position.end.offset);

const blocksOf = (nodes: readonly RootContent[], reading: Reading, depth: number): readonly TextBlock[] =>
  nodes.flatMap((node) => blockOf(node, reading, depth) ?? []);

function blockOf(node: RootContent, reading: Reading, depth: number): TextBlock | null {
  if (depth > DEEPEST) return { kind: 'code', text: written(node, reading) };
  switch (node.type) {
    case 'paragraph':
      return { kind: 'paragraph', spans: spansOf(node.children, reading, depth) };
    case 'heading':
      return { kind: 'heading', depth: node.depth, spans: spansOf(node.children, reading, depth) };
    case 'blockquote':
      return { kind: 'quote', blocks: blocksOf(node.children, reading, depth + 1) };
    case 'list':
      return {
        kind: 'list',
        start: node.ordered === true ? (node.start ?? 1) : null,
        items: node.children.map((item) => blocksOf(item.children, reading, depth + 1)),
      };
    case 'code':
      return { kind: 'code', text: node.value };
    case 'thematicBreak':
      return { kind: 'rule' };
    case 'definition':
      return null;
    case 'html':
      return { kind: 'paragraph', spans: [{ kind: 'text', text: node.value }] };
    default:
      return { kind: 'paragraph', spans: [{ kind: 'text', text: written(node, reading) }] };
  }
}

const spansOf = (nodes: readonly PhrasingContent[], reading: Reading, depth: number): readonly TextSpan[] =>
  nodes.flatMap((node) => spanOf(node, reading, depth));

function spanOf(node: PhrasingContent, reading: Reading, depth: number): TextSpan | readonly TextSpan[] {
  if (depth > DEEPEST) return { kind: 'text', text: written(node, reading) };
  switch (node.type) {
    case 'text':
      return splitAtOperations(node.value, reading.isOperation).map((part): TextSpan =>
        typeof part === 'string'
          ? { kind: 'text', text: part }
          : { kind: 'operation', operation: part.operation },
      );
    case 'html':
      return { kind: 'text', text: node.value };
    case 'inlineCode':
      return { kind: 'code', text: node.value };
    case 'break':
      return { kind: 'break' };
    case 'emphasis':
    case 'strong':
      return { kind: node.type, spans: spansOf(node.children, reading, depth + 1) };
    case 'link':
      return linkTo(node.url, spansOf(node.children, reading, depth + 1), node, reading);
    case 'image':
      return linkTo(node.url, [{ kind: 'text', text: node.alt ?? node.url }], node, reading);
    case 'linkReference': {
      const spans = spansOf(node.children, reading, depth + 1);
      return linkTo(reading.definitions.get(node.identifier)?.url ?? '', spans, node, reading);
    }
    case 'imageReference': {
      const url = reading.definitions.get(node.identifier)?.url ?? '';
      return linkTo(url, [{ kind: 'text', text: node.alt ?? url }], node, reading);
    }
    default:
      return { kind: 'text', text: written(node, reading) };
  }
}

const linkTo = (
  url: string,
  spans: readonly TextSpan[],
  node: PhrasingContent,
  reading: Reading,
): TextSpan =>
  SAFE_URL.test(url)
    ? { kind: 'link', url, spans: spans.length === 0 ? [{ kind: 'text', text: url }] : spans }
    : { kind: 'text', text: written(node, reading) };
