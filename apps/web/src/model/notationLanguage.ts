import {
  HighlightStyle,
  indentService,
  LanguageSupport,
  StreamLanguage,
  syntaxHighlighting,
  type StringStream,
} from '@codemirror/language';
import { FLAG_NAMES, TYPE_NAMES } from '@isomeros/core/notation';
import { tags } from '@lezer/highlight';

interface State {
  /** What kind of line we are in. */
  line: 'none' | 'block' | 'sentence' | 'attribute' | 'rule';
  /** True after the colon of an attribute, until its type was read. */
  awaitsType: boolean;
  /** True right after `entity` or `value`. */
  awaitsName: boolean;
}

const SENTENCE_WORDS = new Set([
  'owns',
  'refers',
  'to',
  'many',
  'one',
  'optional',
  'as',
  'back',
  'on',
  'remove',
  'cascade',
  'restrict',
  'detach',
  'fixed',
  'unique',
  'pairs',
  'with',
  'carrying',
]);
const FLAGS = new Set([...FLAG_NAMES, 'within', 'scale']);
const TYPES = new Set(TYPE_NAMES);

function token(stream: StringStream, state: State): string | null {
  if (stream.sol()) {
    state.line = stream.indentation() > 0 ? 'attribute' : 'none';
    state.awaitsName = false;
    state.awaitsType = false;
  }
  if (stream.eatSpace()) return null;
  if (stream.match(/^#.*/)) return 'comment';
  if (stream.match(/^"(?:[^"\\]|\\.)*"?/)) return 'string';
  if (stream.match(/^-?\d+(?:\.\d+)?/)) return 'number';
  if (stream.match(/^[A-Za-z_][A-Za-z0-9_]*(?:-[A-Za-z0-9_]+)*/))
    return word(stream.current(), stream, state);
  if (stream.next() === ':') state.awaitsType = true;
  return null;
}

function word(text: string, stream: StringStream, state: State): string | null {
  switch (state.line) {
    case 'none':
      state.line = text === 'each' ? 'sentence' : 'block';
      state.awaitsName = text === 'entity' || text === 'value';
      return 'keyword';
    case 'block':
      return state.awaitsName ? 'heading' : null;
    case 'sentence':
      if (/^[A-Z]/.test(text)) return 'heading';
      return SENTENCE_WORDS.has(text) ? 'keyword' : 'propertyName';
    case 'attribute':
      return attributeWord(text, stream, state);
    case 'rule':
      return 'propertyName';
  }
}

function attributeWord(text: string, stream: StringStream, state: State): string | null {
  if (text === 'unique' && stream.match(/^\s*\(/, false)) {
    state.line = 'rule';
    return 'keyword';
  }
  if (stream.match(/^\s*:/, false)) return 'propertyName';
  if (state.awaitsType) {
    if (text === 'list' || text === 'of') return 'typeName';
    state.awaitsType = false;
    return TYPES.has(text) || /^[A-Z]/.test(text) ? 'typeName' : null;
  }
  return FLAGS.has(text) ? 'keyword' : null;
}

const STATEMENT_TYPED = /^\s*(?:design|entity|value|each)\s/;

const language = StreamLanguage.define<State>({
  name: 'isomeros-notation',
  startState: () => ({ line: 'none', awaitsType: false, awaitsName: false }),
  token,
  languageData: { commentTokens: { line: '#' }, indentOnInput: STATEMENT_TYPED },
});

const look = HighlightStyle.define([
  { tag: tags.keyword, color: 'var(--quiet)' },
  { tag: tags.heading, fontWeight: '600' },
  { tag: tags.typeName, color: 'var(--accent)' },
  { tag: tags.string, color: 'var(--ink)' },
  { tag: tags.comment, color: 'var(--quiet)', fontStyle: 'italic' },
]);

/** Lines of a block are indented by two spaces; a word that begins a statement goes back to the margin. */
const indentation = indentService.of((context, position) => {
  if (STATEMENT_TYPED.test(context.lineAt(position, 1).text)) return 0;
  const above = context.lineAt(Math.max(0, position - 1), -1).text;
  return /^(entity|value)\b/.test(above) || /^ {2}\S/.test(above) ? 2 : 0;
});

export const notationLanguage = (): LanguageSupport =>
  new LanguageSupport(language, [syntaxHighlighting(look), indentation]);
