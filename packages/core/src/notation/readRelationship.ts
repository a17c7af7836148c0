import { uncapital } from '../model/index.js';
import type { OnRemove, Owns, PairsWith, RefersTo, Relationship } from '../model/index.js';
import type { TextRange } from './diagnostics.js';
import type { LineReader } from './lineReader.js';
import { writeInstead } from './otherWords.js';
import { sentenceFixes } from './sentences.js';

const RULES: readonly OnRemove[] = ['cascade', 'restrict', 'detach'];
const isRule = (text: string): text is OnRemove => (RULES as readonly string[]).includes(text);

export interface ReadRelationship {
  readonly relationship: Omit<Owns, 'id'> | Omit<RefersTo, 'id'> | Omit<PairsWith, 'id'>;
  readonly fromPlace: TextRange;
  readonly toPlace: TextRange;
}

interface Tail {
  role: string | null;
  back: string | null;
  onRemove: OnRemove | null;
  fixed: boolean;
  unique: boolean;
  carrying: string | null;
}

type Verb = Relationship['kind'];

/** The cardinalities a verb takes, as a message lists them. */
const CARDINALITIES: Readonly<Record<Verb, string>> = {
  owns: 'many, one or optional',
  refers: 'one or optional',
  pairs: 'many',
};

/** Reads `A VERB CARDINALITY B as role, …` after the word `each`. */
export function readRelationship(reader: LineReader, comments: readonly string[]): ReadRelationship | null {
  const from = reader.word('the name of an entity');
  if (from === null) return null;
  const verb = readVerb(reader);
  if (verb === null) return null;
  const cardinality = reader.word(CARDINALITIES[verb], () => sentenceFixes(reader.all()));
  if (cardinality === null) return null;
  const to = reader.word('the name of an entity', () => sentenceFixes(reader.all()));
  if (to === null) return null;
  const tail = readTail(reader, verb);
  const description = reader.description();
  reader.finish();
  const shared = { from: from.text, to: to.text, role: tail.role, back: tail.back, onRemove: tail.onRemove };
  const places = { fromPlace: from.place, toPlace: to.place };
  const word = cardinality.text;
  if (verb === 'owns' && (word === 'many' || word === 'one' || word === 'optional')) {
    return { relationship: { kind: 'owns', cardinality: word, ...shared, description, comments }, ...places };
  }
  if (verb === 'refers' && (word === 'one' || word === 'optional')) {
    const { fixed, unique } = tail;
    return {
      relationship: { kind: 'refers', cardinality: word, ...shared, fixed, unique, description, comments },
      ...places,
    };
  }
  if (verb === 'pairs' && word === 'many') {
    const { carrying } = tail;
    return {
      relationship: { kind: 'pairs', cardinality: word, ...shared, carrying, description, comments },
      ...places,
    };
  }
  reader.report(
    'syntax.expected',
    `Expected ${CARDINALITIES[verb]}; found ${word}.`,
    cardinality.place,
    reader.guessed(() => sentenceFixes(reader.all())),
  );
  return null;
}

function readVerb(reader: LineReader): Verb | null {
  if (reader.take('owns')) return 'owns';
  if (reader.takeWords('refers', 'to')) return 'refers';
  if (reader.takeWords('pairs', 'with')) return 'pairs';
  reader.expected('a verb: owns, refers to or pairs with', () => sentenceFixes(reader.all()));
  return null;
}

/** What else may follow a comma, by verb. */
const MORE_PARTS: Readonly<Record<Verb, string>> = {
  owns: '',
  refers: ', fixed or unique',
  pairs: ' or carrying',
};

function readTail(reader: LineReader, verb: Verb): Tail {
  const tail: Tail = { role: null, back: null, onRemove: null, fixed: false, unique: false, carrying: null };
  if (reader.take('as')) tail.role = readRole(reader);
  while (reader.take(',')) {
    if (reader.takeWords('back', 'as')) tail.back = readRole(reader);
    else if (reader.takeWords('on', 'remove')) tail.onRemove = readRule(reader);
    else if (verb === 'refers' && reader.take('fixed')) tail.fixed = true;
    else if (verb === 'refers' && reader.take('unique')) tail.unique = true;
    else if (verb === 'pairs' && reader.take('carrying'))
      tail.carrying = reader.word('the name of a value')?.text ?? null;
    else {
      reader.expected(`back as, on remove${MORE_PARTS[verb]}`);
      reader.skipToComma();
    }
  }
  return tail;
}

function readRole(reader: LineReader): string | null {
  const word = reader.word('the name of a role');
  if (word === null) return null;
  if (/^[a-z][A-Za-z0-9]*$/.test(word.text)) return word.text;
  const better = uncapital(word.text);
  reader.report(
    'name.case',
    `Names of roles are in camelCase; ${word.text} is not.`,
    word.place,
    writeInstead(better, word.place),
  );
  return word.text;
}

function readRule(reader: LineReader): OnRemove | null {
  const word = reader.word('cascade, restrict or detach');
  if (word === null) return null;
  if (isRule(word.text)) return word.text;
  reader.report('syntax.expected', `Expected cascade, restrict or detach; found ${word.text}.`, word.place);
  return null;
}
