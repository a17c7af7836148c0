import Papa from 'papaparse';
import {
  MOST_COLUMNS,
  bareObject,
  isJsonObject,
  newlinesIn,
  readJson,
  type Json,
} from '../../model/index.js';
import { LineTable } from '../lines.js';
import type { Report } from '../report.js';
import type { SampleRecord } from './tables.js';

/** Records with the kind their place in the source gives them; the empty text where it gives none. */
export interface RecordSet {
  readonly kind: string;
  readonly records: readonly SampleRecord[];
}

const DEPTH = 60;

/** Reads records from JSON, lines of JSON, or comma-separated values, whichever the text is. */
export function readRecordSets(source: string, report: Report): readonly RecordSet[] {
  const start = source.trimStart()[0];
  if (start !== '[' && start !== '{') return [{ kind: '', records: readSeparated(source, report) }];
  const lines = source.split('\n').filter((line) => line.trim() !== '');
  const isLines =
    lines.length > 1 && start === '{' && lines.every((line) => line.trimStart().startsWith('{'));
  if (isLines && lines.every((line) => line.trimEnd().endsWith('}')))
    return [{ kind: '', records: readLines(source, report) }];
  return readDocument(source, report);
}

function readDocument(source: string, report: Report): readonly RecordSet[] {
  const offsets = new WeakMap<object, number>();
  const read = readJson(source, { depth: DEPTH, rounded: true, offsets });
  if (!read.ok) {
    const { message, line, column } = read.problem;
    report.problem = `It is no JSON: ${message} Line ${line}, column ${column}.`;
    return [];
  }
  const table = new LineTable(source);
  const recordsIn = (items: readonly Json[]): SampleRecord[] =>
    items.flatMap((item) =>
      isJsonObject(item) ? [{ value: item, lines: table.at(offsets.get(item)) }] : [],
    );
  const { value } = read;
  if (Array.isArray(value)) return [{ kind: '', records: recordsIn(value as readonly Json[]) }];
  if (!isJsonObject(value)) return [];
  const keyed = (inner: Json): readonly SampleRecord[] => {
    const entries = keyedRecords(inner);
    if (entries === null) return [];
    const lines = table.at(offsets.get(inner as object));
    report.assume(
      lines,
      'Each record is told from others by the name it stands under.',
      `It is an object of ${entries.length} objects alike.`,
    );
    return entries.map(([code, item]) => ({
      value: Object.assign(bareObject(), { [freeKey(entries)]: code }, item),
      lines: table.at(offsets.get(item)),
    }));
  };
  const lists = Object.entries(value).flatMap(([kind, inner]): RecordSet[] => {
    const records = Array.isArray(inner) ? recordsIn(inner as readonly Json[]) : keyed(inner);
    return records.length > 0 ? [{ kind, records }] : [];
  });
  if (lists.length > 0 && lists.length === Object.keys(value).length) return lists;
  const own = keyed(value);
  return [{ kind: '', records: own.length > 0 ? own : recordsIn([value]) }];
}

type Fields = { readonly [name: string]: Json };

/** So much of the members of two objects must be the same for them to be records of one kind. */
const ALIKE = 0.5;

/** Records by their codes: an object of several objects that are alike; `null` for anything else. */
function keyedRecords(value: Json): readonly (readonly [string, Fields])[] | null {
  if (!isJsonObject(value)) return null;
  const entries = Object.entries(value);
  const objects = entries.flatMap(([code, item]) =>
    isJsonObject(item) && Object.keys(item).length > 0 ? [[code, item] as const] : [],
  );
  const [first] = objects;
  if (first === undefined || objects.length < 2 || objects.length < entries.length) return null;
  const names = new Set(Object.keys(first[1]));
  const areAlike = objects.every(([, item]) => {
    const own = Object.keys(item);
    const shared = own.filter((name) => names.has(name)).length;
    return shared >= ALIKE * Math.min(own.length, names.size);
  });
  return areAlike ? objects : null;
}

/** What the code is called: `code` where no record has that already. */
const freeKey = (entries: readonly (readonly [string, Fields])[]): string =>
  ['code', 'key', 'name'].find((name) => entries.every(([, item]) => !(name in item))) ?? 'standsUnder';

/** One JSON object a line. Lines that are none are left out. */
function readLines(source: string, report: Report): readonly SampleRecord[] {
  return source.split('\n').flatMap((text, index) => {
    if (text.trim() === '') return [];
    const lines = { line: index + 1, endLine: index + 1 };
    const read = readJson(text.replace(/\r$/, ''), { depth: DEPTH, rounded: true });
    if (read.ok && isJsonObject(read.value)) return [{ value: read.value, lines }];
    report.leave(lines, text, read.ok ? 'It is no JSON object.' : `It is no JSON: ${read.problem.message}`);
    return [];
  });
}

/** Values between commas, semicolons, tabs or bars (RFC 4180), the first line with their names. */
function readSeparated(source: string, report: Report): readonly SampleRecord[] {
  const { data, errors } = Papa.parse<string[]>(source, { skipEmptyLines: 'greedy' });
  const broken = errors.find(({ type }) => type === 'Quotes');
  if (broken !== undefined)
    report.leave(
      { line: (broken.row ?? 0) + 1, endLine: (broken.row ?? 0) + 1 },
      source.slice(0, 80),
      'A quote is not closed where it should be.',
    );
  const [header, ...rows] = data;
  if (header === undefined) return [];
  if (header.length > MOST_COLUMNS) {
    report.problem = `The first line names ${header.length} columns; at most ${MOST_COLUMNS} are read.`;
    return [];
  }
  const names = header.map((name) => name.trim());
  const before = new Set<string>();
  names.forEach((name, index) => {
    if (name === '' || before.has(name))
      report.leave(
        { line: 1, endLine: 1 },
        name === '' ? `column ${index + 1}` : name,
        name === '' ? 'The column has no name.' : 'A column of this name stands before it.',
      );
    before.add(name);
  });
  let line = 1 + newlinesIn(header);
  return rows.map((cells): SampleRecord => {
    const start = line + 1;
    line = start + newlinesIn(cells);
    const lines = { line: start, endLine: line };
    if (cells.length > names.length)
      report.leave(lines, cells.slice(names.length).join(', '), 'More values than names.');
    const value = bareObject();
    // The cells, not the names: lines may be many, and far shorter than the first.
    cells.forEach((cell, index) => {
      const name = names[index] ?? '';
      if (name !== '' && !(name in value)) value[name] = cell === '' ? null : cell;
    });
    return { value, lines };
  });
}
