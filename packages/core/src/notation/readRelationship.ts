import type { OnRemove, Owns, RefersTo } from '../model/index.js';
import type { Place } from './diagnostics.js';
import type { LineReader } from './lineReader.js';

const RULES: readonly OnRemove[] = ['cascade', 'restrict', 'detach'];
const isRule = (text: string): text is OnRemove => (RULES as readonly string[]).includes(text);

export interface ReadRelationship {
  readonly relationship: Omit<Owns, 'id'> | Omit<RefersTo, 'id'>;
  readonly fromPlace: Place;
  readonly toPlace: Place;
}

interface Tail {
  role: string | null;
  back: string | null;
  onRemove: OnRemove | null;
  fixed: boolean;
  unique: boolean;
}

/** Reads `A VERB CARDINALITY B as role, …` after the word `each`. */
export function readRelationship(reader: LineReader, comments: readonly string[]): ReadRelationship | null {
  const from = reader.word('the name of an entity');
  if (from === null) return null;
  const verb = readVerb(reader);
  if (verb === null) return null;
  const cardinality = reader.word(verb === 'owns' ? 'many, one or optional' : 'one or optional');
  if (cardinality === null) return null;
  const to = reader.word('the name of an entity');
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
  const choices = verb === 'owns' ? 'many, one or optional' : 'one or optional';
  reader.report('syntax.expected', `Expected ${choices}; found ${word}.`, cardinality.place);
  return null;
}

function readVerb(reader: LineReader): 'owns' | 'refers' | null {
  if (reader.take('owns')) return 'owns';
  if (reader.takeWords('refers', 'to')) return 'refers';
  reader.expected('a verb: owns or refers to');
  return null;
}

function readTail(reader: LineReader, verb: 'owns' | 'refers'): Tail {
  const tail: Tail = { role: null, back: null, onRemove: null, fixed: false, unique: false };
  if (reader.take('as')) tail.role = readRole(reader);
  while (reader.take(',')) {
    if (reader.takeWords('back', 'as')) tail.back = readRole(reader);
    else if (reader.takeWords('on', 'remove')) tail.onRemove = readRule(reader);
    else if (verb === 'refers' && reader.take('fixed')) tail.fixed = true;
    else if (verb === 'refers' && reader.take('unique')) tail.unique = true;
    else {
      const more = verb === 'refers' ? ', fixed or unique' : '';
      reader.expected(`back as, on remove${more}`);
      reader.skipToComma();
    }
  }
  return tail;
}

function readRole(reader: LineReader): string | null {
  const word = reader.word('the name of a role');
  if (word === null) return null;
  if (/^[a-z][A-Za-z0-9]*$/.test(word.text)) return word.text;
  const better = word.text.charAt(0).toLowerCase() + word.text.slice(1);
  reader.report('name.case', `Names of roles are in camelCase; ${word.text} is not.`, word.place, {
    title: `Use ${better}`,
    place: word.place,
    replacement: better,
  });
  return word.text;
}

function readRule(reader: LineReader): OnRemove | null {
  const word = reader.word('cascade, restrict or detach');
  if (word === null) return null;
  if (isRule(word.text)) return word.text;
  reader.report('syntax.expected', `Expected cascade, restrict or detach; found ${word.text}.`, word.place);
  return null;
}
