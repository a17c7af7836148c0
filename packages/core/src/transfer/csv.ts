import Papa from 'papaparse';
import {
  MOST_COLUMNS,
  bareObject,
  describeType,
  indexModel,
  isJsonObject,
  newlinesIn,
  readJson,
  scalarFromText,
  type Attribute,
  type AttributeType,
  type EntityStorage,
  type Json,
  type Model,
  type ScalarType,
} from '../model/index.js';
import { pathAttributes, pointersOf } from './recordTypes.js';
import type { SourceRecords, SourceRecord } from './sourceRecords.js';
import { unknownMember, type ProblemReporter } from './values.js';

/** One column of a kind of record: a scalar, a list or document as JSON, or the keys that lead to another record. */
type Column =
  | { readonly kind: 'attribute'; readonly path: readonly string[]; readonly type: AttributeType }
  | { readonly kind: 'pointer'; readonly path: readonly string[]; readonly keys: readonly Attribute[] };

const DEPTH = 32;

const headerOf = ({ path }: Column): string => path.join('.');

/**
 * The columns of a kind, structured values taken apart: `position.latitude`. One that may have no part at all stays
 * whole, as JSON: nothing else would tell it from one that is unset.
 */
function columnsOf(model: Model, storage: EntityStorage): readonly Column[] {
  const flat = ({ name, type }: Attribute, above: readonly string[]): Column[] => {
    const path = [...above, name];
    const parts = type.kind === 'value' ? (indexModel(model).values.get(type.name)?.attributes ?? []) : [];
    return parts.some(({ required }) => required)
      ? parts.flatMap((part) => flat(part, path))
      : [{ kind: 'attribute', path, type }];
  };
  return [
    ...storage.attributes.flatMap((attribute) => flat(attribute, [])),
    ...pointersOf(model, storage).map(({ name, target }): Column => ({
      kind: 'pointer',
      path: [name],
      keys: pathAttributes(model, target),
    })),
  ];
}

/** The first line of a file of one kind (RFC 4180 §2). */
export const csvHeader = (model: Model, storage: EntityStorage, secrets: boolean): string =>
  line(writtenColumns(model, storage, secrets).map(headerOf));

/** One record as a line. What is unset is an empty cell, the empty text is `""` inside its cell. */
export function csvLine(
  model: Model,
  storage: EntityStorage,
  record: Readonly<Record<string, Json>>,
  secrets: boolean,
): string {
  return line(
    writtenColumns(model, storage, secrets).map((column) => {
      let value: Json | undefined = record;
      for (const name of column.path) value = isJsonObject(value) ? value[name] : undefined;
      return cellText(column, value ?? null);
    }),
  );
}

const writtenColumns = (model: Model, storage: EntityStorage, secrets: boolean): readonly Column[] => {
  const hidden = new Set(storage.attributes.flatMap(({ name, writeOnly }) => (writeOnly ? [name] : [])));
  return columnsOf(model, storage).filter(({ path }) => secrets || !hidden.has(path[0] ?? ''));
};

const line = (cells: readonly string[]): string =>
  `${Papa.unparse([cells as string[]], { newline: '\r\n' })}\r\n`;

/** Texts stand as they are, but for those that would be read as something else. */
function cellText(column: Column, value: Json): string {
  if (value === null) return '';
  const isPlain = typeof value === 'string' && value !== '' && !value.startsWith('"');
  return isPlain && !holdsJson(column) ? value : JSON.stringify(value);
}

/** So many characters of a file are taken apart at once, and what is left of the record at their end. */
const BLOCK = 65_536;

/** The text in blocks of whole records: a line ends where an even number of quotes stands before it. */
function* blocksOf(text: string): Generator<string> {
  let start = 0;
  while (start < text.length) {
    const end = endOfRecord(text, start, Math.min(start + BLOCK, text.length));
    yield text.slice(start, end);
    start = end;
  }
}

/** Behind the first record of a block that ends at an index or later. */
function endOfRecord(text: string, start: number, from: number): number {
  let isQuoted = false;
  let at = start;
  for (;;) {
    const quote = text.indexOf('"', at);
    const end = quote === -1 ? text.length : quote;
    const newline = isQuoted || end <= from ? -1 : text.indexOf('\n', Math.max(at, from));
    if (newline !== -1 && newline < end) return newline + 1;
    if (quote === -1) return text.length;
    isQuoted = !isQuoted;
    at = quote + 1;
  }
}

/**
 * Reads comma-separated values (RFC 4180), the first line with the names of the columns; semicolons, tabs and bars
 * are told apart by themselves. A column that is not there says nothing of its attribute, an empty cell unsets it.
 */
export function* readCsv(
  model: Model,
  storage: EntityStorage,
  text: string,
  report: ProblemReporter,
): Generator<SourceRecords> {
  yield { storage, record: null };
  let header: readonly string[] | null = null;
  let columns: readonly (Column | null)[] = [];
  let delimiter = '';
  let last = 0;
  let index = 0;
  for (const block of blocksOf(text)) {
    const { data, errors, meta } = Papa.parse<string[]>(block, { skipEmptyLines: 'greedy', delimiter });
    ({ delimiter } = meta);
    for (const [row, cells] of data.entries()) {
      const number = last + 1;
      last += newlinesIn(cells) + 1;
      if (errors.some(({ type, row: at }) => type === 'Quotes' && (at ?? 0) === row)) {
        const message = `Line ${number}: a quote is not closed where it should be.`;
        report({ pointer: '', code: 'syntax', message });
        return;
      }
      if (header === null) {
        header = cells;
        columns = readHeader(columnsOf(model, storage), computedOf(storage), cells, report);
      } else {
        const place = `Line ${number}: `;
        yield {
          storage,
          record: readLine(columns, cells, header.length, { pointer: `/${index++}`, place }, report),
        };
      }
    }
  }
  if (header === null)
    report({ pointer: '', code: 'syntax', message: 'Expected a first line with the names of the columns.' });
}

function readLine(
  columns: readonly (Column | null)[],
  cells: readonly string[],
  expected: number,
  { pointer, place }: Pick<SourceRecord, 'pointer' | 'place'>,
  report: ProblemReporter,
): SourceRecord {
  if (cells.length !== expected)
    report({
      pointer,
      code: 'length',
      message: `${place}Expected ${expected} cells; there are ${cells.length}.`,
    });
  const value = bareObject();
  // The cells, not the columns: lines may be many, and far shorter than the first.
  cells.forEach((cell, at) => {
    const column = columns[at] ?? null;
    if (column === null) return;
    const read = readCell(column, cell);
    if (read.ok) put(value, column.path, read.value);
    else report({ pointer: `${pointer}/${headerOf(column)}`, code: 'type', message: place + read.message });
  });
  return { value, pointer, place };
}

/** They are read as texts, and passed over when they are known by their names. */
const computedOf = ({ computed }: EntityStorage): readonly Column[] =>
  computed.map(({ name }) => ({ kind: 'attribute', path: [name], type: ANY_TEXT }));

const ANY_TEXT: AttributeType = { kind: 'text', pattern: null, min: null, max: null };

function readHeader(
  columns: readonly Column[],
  computed: readonly Column[],
  header: readonly string[],
  report: ProblemReporter,
): readonly (Column | null)[] {
  if (header.length > MOST_COLUMNS) {
    const message = `Line 1: there are ${header.length} columns; at most ${MOST_COLUMNS} are read.`;
    report({ pointer: '', code: 'length', message });
    return [];
  }
  const known = columns.map(headerOf);
  const byName = new Map([...columns, ...computed].map((column) => [headerOf(column), column]));
  const before = new Set<string>();
  return header.map((cell) => {
    const name = cell.trim().replace(/^\uFEFF/, '');
    const column = byName.get(name);
    const twice = before.has(name);
    before.add(name);
    if (column === undefined) {
      const { code, message } = unknownMember(name, known);
      report({ pointer: '', code, message: `Line 1: ${message}` });
    } else if (twice) {
      report({ pointer: '', code: 'duplicate', message: `Line 1: The column ${name} stands there twice.` });
    } else return column;
    return null;
  });
}

type CellRead =
  { readonly ok: true; readonly value: Json } | { readonly ok: false; readonly message: string };

/** The type of the one scalar in the cells of a column; `null` where they hold JSON. */
function scalarOf(column: Column): ScalarType | null {
  const [type, second] =
    column.kind === 'attribute' ? [column.type] : column.keys.map((attribute) => attribute.type);
  const isScalar =
    type !== undefined && type.kind !== 'list' && type.kind !== 'json' && type.kind !== 'value';
  return isScalar && second === undefined ? type : null;
}

const holdsJson = (column: Column): boolean => scalarOf(column) === null;

function readCell(column: Column, cell: string): CellRead {
  if (cell === '') return { ok: true, value: null };
  const scalar = scalarOf(column);
  return scalar === null ? readJsonCell(cell) : readScalarCell(scalar, cell);
}

function readScalarCell(type: ScalarType, cell: string): CellRead {
  if (cell.startsWith('"')) {
    const read = readJson(cell, { depth: 1 });
    if (read.ok && typeof read.value === 'string') return { ok: true, value: read.value };
  }
  const value = scalarFromText(type, cell);
  if (value !== undefined) return { ok: true, value };
  return { ok: false, message: `Expected ${describeType(type)}; it is ${JSON.stringify(cell)}.` };
}

function readJsonCell(cell: string): CellRead {
  const read = readJson(cell, { depth: DEPTH });
  return read.ok
    ? { ok: true, value: read.value }
    : { ok: false, message: `Expected JSON. ${read.problem.message}` };
}

/** Puts the value of a column in its place. A structured value is there as soon as one part of it is set. */
function put(record: Record<string, Json>, path: readonly string[], value: Json): void {
  const [name = '', ...rest] = path;
  if (rest.length === 0) {
    record[name] = value;
    return;
  }
  const inner = record[name] ?? null;
  if (value === null && inner === null) {
    record[name] = null;
    return;
  }
  const parts: Record<string, Json> = Object.assign(bareObject(), inner);
  put(parts, rest, value);
  record[name] = parts;
}
