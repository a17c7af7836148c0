import { isJsonObject, type Json, type Row } from '../model/index.js';
import {
  EXAMPLE_HEADERS,
  EXAMPLE_NAME,
  EXPECTED_EXAMPLE_NAME,
  LONGEST_EXAMPLE_BODY,
  LONGEST_EXAMPLE_QUERY,
  LONGEST_EXAMPLE_TEXT,
  MOST_EXAMPLE_IDS,
  MOST_EXAMPLE_RECORDS,
  MOST_EXAMPLES,
  type ExampleId,
  type NamedExample,
} from './examples.js';
import { InputReading } from './inputReading.js';
import { CUSTOM_ID } from './readCustomOperations.js';
import type { ReadResult } from './reading.js';

const QUERY = new RegExp(`^[!-~]{0,${LONGEST_EXAMPLE_QUERY}}$`);

/** Reads the examples of an arrangement; everything wrong is reported at once. */
export function readExamples(given: Json, pointer: string): ReadResult<readonly NamedExample[]> {
  const reading = new Reading();
  const value = reading.list(given, pointer, MOST_EXAMPLES, (item, at) => reading.example(item, at));
  reading.reportTwice(value, pointer, 'examples');
  return { value, problems: reading.problems };
}

const MEMBERS = [
  'id',
  'name',
  'operation',
  'ids',
  'query',
  'headers',
  'body',
  'members',
  'records',
  'now',
  'status',
];

class Reading extends InputReading {
  example(given: Json, at: string): NamedExample | null {
    const one = this.object(given, at, MEMBERS);
    if (one === null) return null;
    const before = this.problems.length;
    const id = this.text(one, 'id', at, CUSTOM_ID, '1 to 60 letters, digits, hyphens or underscores');
    const name = this.text(one, 'name', at, EXAMPLE_NAME, EXPECTED_EXAMPLE_NAME);
    const operation = this.text(one, 'operation', at, /^.{1,400}$/s, 'what an operation is filed by');
    const query = this.text(one, 'query', at, QUERY, `a query of at most ${LONGEST_EXAMPLE_QUERY} bytes`);
    const ids = this.list(one['ids'] ?? [], `${at}/ids`, MOST_EXAMPLE_IDS, (item, to) => this.idOf(item, to));
    const headers = this.texts(one['headers'], `${at}/headers`);
    for (const header of Object.keys(headers))
      if (!EXAMPLE_HEADERS.some((known) => known === header))
        this.report(`${at}/headers/${header}`, 'options', `Expected one of ${EXAMPLE_HEADERS.join(', ')}.`);
    const members = this.texts(one['members'], `${at}/members`);
    const body = one['body'] ?? null;
    if (body !== null && (typeof body !== 'string' || body.length > LONGEST_EXAMPLE_BODY))
      this.report(
        `${at}/body`,
        'type',
        `Expected a text of at most ${LONGEST_EXAMPLE_BODY} characters, or null.`,
      );
    const records = this.list(one['records'] ?? [], `${at}/records`, MOST_EXAMPLE_RECORDS, (item, to) =>
      this.record(item, to),
    );
    const now = this.number(one['now'], `${at}/now`, 8_640_000_000_000_000);
    const status = this.number(one['status'], `${at}/status`, 599);
    if (this.problems.length > before || id === null || name === null || operation === null || query === null)
      return null;
    return {
      id,
      name,
      operation,
      ids,
      query,
      headers,
      body: body as string | null,
      members,
      records,
      now,
      status,
    };
  }

  private idOf(given: Json, at: string): ExampleId | null {
    const one = this.object(given, at, ['of', 'value']);
    if (one === null) return null;
    const of = this.text(one, 'of', at, /^.{1,400}$/s, 'the id of a resource');
    const value = this.text(one, 'value', at, /^.{1,400}$/s, 'an id');
    return of === null || value === null ? null : { of, value };
  }

  private record(given: Json, at: string): Row | null {
    const one = this.object(given, at, ['rid', 'entity', 'values', 'revision']);
    if (one === null) return null;
    const entity = this.text(one, 'entity', at, /^.{1,200}$/s, 'the identity of an entity');
    const rid = this.number(one['rid'], `${at}/rid`, Number.MAX_SAFE_INTEGER);
    const revision = this.number(one['revision'], `${at}/revision`, Number.MAX_SAFE_INTEGER);
    const values = one['values'];
    if (isJsonObject(values)) return entity === null ? null : { rid, entity, values, revision };
    this.report(`${at}/values`, 'type', 'Expected an object from identities to values.');
    return null;
  }

  private texts(given: Json | undefined, at: string): Readonly<Record<string, string>> {
    const isFit =
      isJsonObject(given) &&
      Object.values(given).every((text) => typeof text === 'string' && text.length <= LONGEST_EXAMPLE_TEXT);
    if (isFit) return given as Readonly<Record<string, string>>;
    this.report(
      at,
      'type',
      `Expected an object from names to texts of at most ${LONGEST_EXAMPLE_TEXT} characters.`,
    );
    return {};
  }

  private number(given: Json | undefined, at: string, most: number): number {
    if (typeof given === 'number' && Number.isInteger(given) && given >= 0 && given <= most) return given;
    this.report(at, 'type', `Expected a whole number from 0 to ${most}.`);
    return 0;
  }
}
