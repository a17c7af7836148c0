import {
  isScalarType,
  readJson,
  scalarFromText,
  type EntityStorage,
  type Json,
  type Model,
} from '../model/index.js';
import { pathAttributes, pointersOf } from '../transfer/index.js';
import type { RecordCell } from './table.js';

/**
 * What is typed into a cell as the value it stands for: nothing unsets, `""` is the empty text, lists and structures are
 * JSON, several keys that lead to a record stand one after the other with slashes between them. What cannot be of the type
 * of the column stays the text it is: what is wrong with it is told by whoever takes it.
 */
export function valueOfCell(model: Model, storage: EntityStorage, column: string, text: string): Json {
  if (text === '') return null;
  const pointer = pointersOf(model, storage).find(({ name }) => name === column);
  if (pointer !== undefined) {
    const keys = pathAttributes(model, pointer.target);
    if (keys.length === 1) return scalarOf(keys[0]?.type, text);
    return text.split('/').map((part, index) => scalarOf(keys[index]?.type, part.trim()));
  }
  const attributes = [...storage.attributes, ...storage.computed];
  return scalarOf(attributes.find(({ name }) => name === column)?.type, text);
}

function scalarOf(type: EntityStorage['key']['type'] | undefined, text: string): Json {
  if (type === undefined) return text;
  if (!isScalarType(type)) {
    const read = readJson(text, { depth: DEPTH });
    return read.ok ? read.value : text;
  }
  const quoted = text.startsWith('"') ? readJson(text) : null;
  if (quoted?.ok === true && typeof quoted.value === 'string') return quoted.value;
  return scalarFromText(type, text) ?? text;
}

const DEPTH = 32;

/** A cell as it is typed. */
export function textOfCell(cell: RecordCell): string {
  switch (cell.kind) {
    case 'secret':
      return '';
    case 'record':
      return Array.isArray(cell.to.key)
        ? (cell.to.key as readonly Json[]).map(textOfKey).join(' / ')
        : textOfKey(cell.to.key);
    case 'value':
      return textOfValue(cell.value);
  }
}

export const textOfKey = (key: Json): string => (typeof key === 'string' ? key : JSON.stringify(key));

/** Texts stand as they are, but for those that would be read as something else. */
const textOfValue = (value: Json): string => {
  if (value === null) return '';
  const isPlain = typeof value === 'string' && value !== '' && !value.startsWith('"');
  return isPlain ? value : JSON.stringify(value);
};
