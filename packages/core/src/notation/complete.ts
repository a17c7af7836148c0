import { AGGREGATES } from '../model/index.js';
import { RoleTargets } from './expressionNames.js';
import { FLAG_WORDS, TYPE_WORDS } from './otherWords.js';
import { FLAG_NAMES } from './readAttribute.js';
import { TYPE_NAMES } from './readType.js';
import { findOccurrences, type Occurrence } from './occurrences.js';
import { tokenize, writeOption, type Token } from './tokens.js';

export interface Suggestion {
  readonly label: string;
  /** What it is, in a word or two. */
  readonly detail: string;
  /** What is put in, where that is not the label: it was typed by the name that it has elsewhere. */
  readonly write?: string;
}

export interface Suggestions {
  /** The column, from 1, where what was typed of it begins. */
  readonly column: number;
  readonly options: readonly Suggestion[];
}

/** What could stand at a line and column (from 1), given everything before it on its line. */
export function suggest(text: string, line: number, column: number): Suggestions {
  const lines = text.split(/\r\n|\n|\r/);
  const before = (lines[line - 1] ?? '').slice(0, column - 1);
  const typed = /[A-Za-z_][A-Za-z0-9_-]*$/.exec(before)?.[0] ?? '';
  const start = before.slice(0, before.length - typed.length);
  const { tokens, comment, problems } = tokenize(start, line);
  if (comment !== null || problems.some(({ code }) => code === 'string.open')) return { column, options: [] };
  const names = new Names(findOccurrences(text), lines, line);
  const indent = /^\s*/.exec(before)?.[0].length ?? 0;
  const options = indent === 0 ? statementOptions(tokens, names) : blockOptions(tokens, indent, names);
  return { column: column - typed.length, options: [...options, ...meantBy(typed, options)] };
}

const LEAST_MEANT = 2;

/** What is meant by a word from elsewhere that was begun, where a type or a flag can stand. */
function meantBy(typed: string, options: readonly Suggestion[]): readonly Suggestion[] {
  if (typed.length < LEAST_MEANT) return [];
  const isOffered = (wanted: string): boolean => options.some(({ detail }) => detail === wanted);
  const all = [
    ...(isOffered('type') ? Object.entries(TYPE_WORDS) : []),
    ...(isOffered('flag') ? Object.entries(FLAG_WORDS) : []),
  ];
  return all
    .filter(([word]) => word.startsWith(typed.toLowerCase()))
    .flatMap(([label, meanings]) =>
      meanings
        .filter(({ write }) => write !== '')
        .map(({ write }) => ({ label, detail: `${write} here`, write })),
    );
}

/** Where the roles of a text lead, by its sentences. */
function targetsIn(lines: readonly string[]): RoleTargets {
  const targets = new RoleTargets();
  lines.forEach((source, index) => {
    const { tokens } = tokenize(source, index + 1);
    if (tokens[0]?.text === 'each') targets.sentence(tokens, tokens[2]?.text === 'owns' ? 1 : 2);
  });
  return targets;
}

/** The names of the text as suggestions. */
class Names {
  /** The block that the line belongs to. */
  readonly block: string;

  constructor(
    private readonly found: readonly Occurrence[],
    private readonly lines: readonly string[],
    line: number,
  ) {
    const above = lines.slice(0, line).findLast((source) => /^(entity|value)\s+\w/.test(source));
    this.block = /^\w+\s+(\w+)/.exec(above ?? '')?.[1] ?? '';
    this.kinds = new Map(
      lines.flatMap((source) => {
        const [, kind, name] = /^(entity|value)\s+(\w+)/.exec(source) ?? [];
        return kind === undefined || name === undefined ? [] : [[name, kind] as const];
      }),
    );
  }

  private readonly kinds: ReadonlyMap<string, string>;

  blocks(kind: 'entity' | 'value'): Suggestion[] {
    return [...this.kinds].filter(([, own]) => own === kind).map(([label]) => ({ label, detail: kind }));
  }

  /** Where the roles of the text lead. */
  get targets(): RoleTargets {
    return targetsIn(this.lines);
  }

  /** Attributes and roles of a block: that of the line where none is named. */
  members(block = this.block): Suggestion[] {
    const own = this.found.filter(
      ({ kind, symbol, defines }) => defines && kind === 'member' && symbol.startsWith(`member:${block}.`),
    );
    return unique(own).map((label) => ({ label, detail: 'attribute or role' }));
  }

  /** States of the attribute that was declared last before the line. */
  states(line: number): Suggestion[] {
    const before = this.found.filter(
      ({ kind, place, defines }) => kind === 'state' && defines && place.line <= line,
    );
    const last = before.at(-1)?.place.line;
    return unique(before.filter(({ place }) => place.line === last)).map((label) => ({
      label: writeOption(label),
      detail: 'state',
    }));
  }
}

const unique = (found: readonly Occurrence[]): string[] => [...new Set(found.map(({ name }) => name))];
const words = (detail: string, ...labels: readonly string[]): Suggestion[] =>
  labels.map((label) => ({ label, detail }));

function statementOptions(tokens: readonly Token[], names: Names): readonly Suggestion[] {
  if (tokens.length === 0) return words('statement', 'entity', 'value', 'each', 'design');
  if (tokens[0]?.text !== 'each') return [];
  const texts = tokens.map(({ text }) => text);
  const after = texts.slice(2);
  if (texts.length === 1) return names.blocks('entity');
  if (texts.length === 2) return words('verb', 'owns', 'refers to', 'pairs with');
  const verb = after[0] === 'owns' ? 1 : 2;
  if (after.length < verb) return after[0] === 'refers' ? words('verb', 'to') : words('verb', 'with');
  if (after.length === verb) return cardinalities(after[0]);
  if (after.length === verb + 1) return names.blocks('entity');
  return tailOptions(texts, after[0] ?? '', names);
}

function cardinalities(verb: string | undefined): Suggestion[] {
  if (verb === 'owns') return words('cardinality', 'many', 'one', 'optional');
  return verb === 'pairs' ? words('cardinality', 'many') : words('cardinality', 'one', 'optional');
}

function tailOptions(texts: readonly string[], verb: string, names: Names): readonly Suggestion[] {
  const last = texts.at(-1);
  if (last === 'as') return [];
  if (last === 'carrying') return names.blocks('value');
  if (last === 'remove') return words('rule', 'cascade', 'restrict', 'detach');
  if (last === ',') {
    const more = verb === 'refers' ? ['fixed', 'unique'] : verb === 'pairs' ? ['carrying'] : [];
    return words('part', 'back as', 'on remove', ...more);
  }
  return texts.includes('as') ? [] : words('part', 'as');
}

function blockOptions(tokens: readonly Token[], indent: number, names: Names): readonly Suggestion[] {
  const texts = tokens.map(({ text }) => text);
  const last = texts.at(-1);
  const line = tokens[0]?.place.line ?? 0;
  if (texts.length === 0) return indent > 2 ? [] : words('rule', 'unique (');
  if (texts[0] === 'unique' && texts[1] === '(') return names.members();
  const computed = texts.indexOf('computed');
  if (computed > 2 && !texts.slice(computed).includes(','))
    return expressionOptions(tokens.slice(computed + 1), names);
  if (last === 'when' || last === 'and' || last === 'or') return names.members();
  if (indent > 2 && texts[1] === ':') return transitionOptions(last, line, names);
  if (texts.length === 2 && last === ':') return typeOptions(names);
  if (last === 'of') return typeOptions(names);
  if (last === ',' && depthOf(texts) === 0) return words('flag', ...FLAG_NAMES);
  if (last === 'within') return names.members();
  if (last === 'unique' || last === 'key') return words('flag', 'within');
  if (last === 'default') return names.states(line);
  return [];
}

/** What can stand next in an expression. */
function expressionOptions(tokens: readonly Token[], names: Names): readonly Suggestion[] {
  const last = tokens.at(-1);
  if (last?.text === '.') {
    const of = blockBehind(tokens.slice(0, -1), names);
    return names.members(of);
  }
  if (last?.text === 'of') return names.members();
  if (last?.text === 'where' || last?.text === 'and') return names.members(endOf(tokens, names));
  const isOperand = last === undefined || /^[-+*/&(]$/.test(last.text);
  return isOperand
    ? [
        ...names.members(),
        ...AGGREGATES.map((one) => ({ label: `${one} of`, detail: 'of what a role leads to' })),
      ]
    : words('part', 'where', 'and', 'example');
}

/** The block that a path of roles at the end leads to. */
function blockBehind(tokens: readonly Token[], names: Names): string {
  const path: string[] = [];
  for (let at = tokens.length - 1; tokens[at]?.kind === 'word'; at -= 2) {
    path.unshift(tokens[at]?.text ?? '');
    if (tokens[at - 1]?.text !== '.') break;
  }
  const { targets } = names;
  return path.reduce((block, role) => targets.of(block, role), names.block);
}

/** The block of the records that the last aggregate is about. */
function endOf(tokens: readonly Token[], names: Names): string {
  const start = tokens.findLastIndex(({ text }) => text === 'of');
  const where = tokens.findIndex(({ text }, index) => index > start && text === 'where');
  const path = tokens.slice(start + 1, where === -1 ? tokens.length : where);
  const isCount = tokens[start - 1]?.text === 'count';
  return blockBehind(isCount ? path : path.slice(0, -2), names);
}

const typeOptions = (names: Names): Suggestion[] => [
  ...words('type', ...TYPE_NAMES),
  ...names.blocks('value'),
];

function transitionOptions(last: string | undefined, line: number, names: Names): readonly Suggestion[] {
  if (last === ':' || last === ',' || last === '->') return names.states(line);
  return words('part', '->', 'when');
}

const depthOf = (texts: readonly string[]): number =>
  texts.reduce((depth, text) => depth + (text === '(' ? 1 : text === ')' ? -1 : 0), 0);
