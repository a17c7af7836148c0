import type { ListQuery } from './listQuery.js';
import {
  filterNames,
  filterTerm,
  indexContract,
  looksForRecords,
  operatorInValue,
  parameterKey,
  type FilterParameter,
  type Operation,
  type QueryParameter,
} from '../../contract/index.js';
import type { Operand } from '../../arrangement/index.js';
import { describeType, memoize, scalarFromText } from '../../model/index.js';
import type { ProblemDetail } from '../message.js';
import type { RequestContext } from '../service.js';
import { readQuery, type QueryEntry } from '../target.js';
import { type Cursor } from './listQuery.js';
import { cursorScope, readCursor } from './cursor.js';
import { NOTHING_EXPANDED, readExpand, type ExpandTree } from './expand.js';
import { fixedFilter, readFilter, type Filter } from './filter.js';
import type { PageRequest } from './listQuery.js';
import { parametersOf } from './listAt.js';
import { readSearch, type Search } from './search.js';
import { readSort, withDirections, type SortBy } from './sort.js';

type QueryResult =
  | { readonly ok: true; readonly query: ListQuery }
  | { readonly ok: false; readonly errors: readonly ProblemDetail[] };

/** A query that passed, and what it was read from. */
export interface ParsedQuery {
  readonly entries: readonly QueryEntry[];
  readonly query: ListQuery;
}

export type ParsedQueryResult =
  | { readonly ok: true; readonly asked: ParsedQuery }
  | { readonly ok: false; readonly errors: readonly ProblemDetail[] };

/** So many queries of an operation are remembered at once, of at most so many characters. */
const MOST_REMEMBERED = 200;
const LONGEST_REMEMBERED = 400;

const NOTHING_SENT: ReadonlyMap<string, Operand> = new Map();

const remembered = memoize<Operation, Map<string, ParsedQueryResult>>(() => new Map());

/** Reads the text of a query. Clients ask the same again and again, so that is read once. */
export function parseQuery(
  service: RequestContext,
  operation: Operation,
  /** Where the list is; cursors are bound to it. */
  path: () => string,
  text: string,
  /** What was sent for inputs in a body. */
  sent: ReadonlyMap<string, Operand> = NOTHING_SENT,
): ParsedQueryResult {
  const known = remembered(operation);
  const before = known.get(text);
  if (before !== undefined) return before;
  const { entries, unreadable } = readQuery(text);
  const read = readListQuery(service, operation, path, entries, unreadable, sent);
  if (!read.ok) return read;
  const result: ParsedQueryResult = { ok: true, asked: { entries, query: read.query } };
  if (!isLasting(operation, read.query) || text.length > LONGEST_REMEMBERED) return result;
  if (known.size === MOST_REMEMBERED) known.clear();
  known.set(text, result);
  return result;
}

/**
 * Whether a query means the same the next time: not where it looks for something of the moment or goes on from a
 * cursor; and what is answered inside is kept by its tree, for one request.
 */
const isLasting = ({ custom }: Operation, { page, expand }: ListQuery): boolean =>
  custom === null && expand.size === 0 && !(page.kind === 'cursor' && page.cursor !== null);

/** Reads the query parameters of an operation at a path; every parameter that is wrong is reported. */
function readListQuery(
  service: RequestContext,
  operation: Operation,
  path: () => string,
  entries: readonly QueryEntry[],
  unreadable: readonly string[],
  sent: ReadonlyMap<string, Operand>,
): QueryResult {
  const errors: ProblemDetail[] = unreadable.map((pair) => ({
    parameter: pair.slice(0, 80),
    code: 'encoding',
    message: 'Expected percent-encoded UTF-8.',
  }));
  const byName = parametersOf(operation);
  const read = new Reading(service, operation, path, errors, sent);
  const seen = new Set<string>();
  for (const entry of entries) {
    const found = meantBy(byName, entry);
    if (found === null) {
      if (operation.unknownParameters === 'refused') errors.push(unknownParameter(entry.name, byName));
      continue;
    }
    const { parameter, operator, operand } = found;
    // A plain equality is the same parameter as the one with its operator.
    const key = parameter.role === 'filter' ? `${parameterKey(parameter)} ${operator}` : parameter.name;
    const mayRepeat =
      (parameter.role === 'filter' && parameter.spelling === 'in value') ||
      (parameter.role === 'sort' && parameter.style === 'repeated');
    if (seen.has(key) && !mayRepeat) {
      const message = `The parameter ${entry.name} stands twice.`;
      errors.push({ parameter: entry.name, code: 'repeated', message });
      continue;
    }
    seen.add(key);
    read.take(parameter, operand, operator);
  }
  const query = read.query();
  return errors.length === 0 ? { ok: true, query } : { ok: false, errors };
}

/** A parameter as it was meant, with the operator of a filter, and its value without it. */
interface Meant {
  readonly parameter: QueryParameter;
  readonly operator: string;
  readonly operand: QueryEntry;
}

/** What a parameter of a query means; `null` where it means nothing. */
function meantBy(byName: ReadonlyMap<string, QueryParameter>, entry: QueryEntry): Meant | null {
  const own = byName.get(entry.name);
  if (own !== undefined && own.role !== 'filter') return { parameter: own, operator: 'eq', operand: entry };
  if (own?.role === 'filter' && own.spelling === 'in value') return { parameter: own, ...inValue(entry) };
  if (own?.role === 'filter') return { parameter: own, operator: 'eq', operand: entry };
  for (const { operator, ...written } of filterNames(entry.name)) {
    const { spelling, family } = written;
    const filter = byName.get(filterTerm(written, 'eq').name);
    if (filter?.role !== 'filter' || filter.spelling !== spelling || filter.family !== family) continue;
    if (takesOperators(filter) || spelling === 'family')
      return { parameter: filter, operator, operand: entry };
  }
  return null;
}

/** `gte:5`: the operator, and the rest as the value. */
function inValue(entry: QueryEntry): Pick<Meant, 'operator' | 'operand'> {
  const { operator, length } = operatorInValue(entry.value);
  // Whoever encodes the colon sends it as three characters.
  const raw = entry.raw.replace(length === 0 ? /^/ : /^[a-z]+(?::|%3A)/i, '');
  return { operator, operand: { ...entry, value: entry.value.slice(length), raw } };
}

const takesOperators = ({ operators }: FilterParameter): boolean =>
  !(operators.length === 1 && operators[0] === 'eq');

function unknownParameter(name: string, known: ReadonlyMap<string, QueryParameter>): ProblemDetail {
  const names = [...known.keys()];
  const hint = names.length === 0 ? 'This operation has none.' : `There are ${names.join(', ')}.`;
  return { parameter: name, code: 'unknown', message: `There is no parameter ${name}. ${hint}` };
}

/** What was read so far. */
class Reading {
  private number = 1;
  private offset = 0;
  private size: number | null;
  /** The order where nobody asks, and the keys that were asked for. */
  private readonly usual: readonly SortBy[];
  private asked: readonly SortBy[] | null = null;
  private directions: { readonly name: string; readonly text: string } | null = null;
  private cursor: { readonly name: string; readonly text: string } | null = null;
  private search: Search | null = null;
  private fields: ReadonlySet<string> | null = null;
  private expand: ExpandTree = NOTHING_EXPANDED;
  private readonly filters: Filter[] = [];
  private readonly inputs: Map<string, Operand>;

  constructor(
    private readonly service: RequestContext,
    private readonly operation: Operation,
    private readonly path: () => string,
    private readonly errors: ProblemDetail[],
    sent: ReadonlyMap<string, Operand>,
  ) {
    this.inputs = new Map(sent);
    const size = operation.query.find((parameter) => parameter.role === 'size');
    this.size = size?.role === 'size' ? size.default : null;
    this.usual = operation.order.map(({ field, type, descending }) => ({ field, type, descending }));
  }

  take(parameter: QueryParameter, entry: QueryEntry, operator: string): void {
    switch (parameter.role) {
      case 'page':
        this.number = this.count(parameter, entry.value, 1, Number.MAX_SAFE_INTEGER);
        break;
      case 'offset':
        this.offset = this.count(parameter, entry.value, 0, Number.MAX_SAFE_INTEGER);
        break;
      case 'cursor':
        this.cursor = { name: parameter.name, text: entry.value };
        break;
      case 'size':
        this.size =
          this.operation.paging?.oversize === 'clamped'
            ? Math.min(parameter.max, this.count(parameter, entry.value, 1, Number.MAX_SAFE_INTEGER))
            : this.count(parameter, entry.value, 1, parameter.max);
        break;
      case 'sort':
        this.asked = [...(this.asked ?? []), ...readSort(parameter, entry.value, this.errors)];
        break;
      case 'order':
        this.directions = { name: parameter.name, text: entry.value };
        break;
      case 'filter': {
        const filter = readFilter(parameter, operator, entry, this.errors);
        if (filter !== null) this.filters.push(filter);
        break;
      }
      case 'input': {
        const { name, type } = parameter;
        const value = scalarFromText(type, entry.value);
        if (value === undefined)
          this.errors.push({ parameter: name, code: 'type', message: `Expected ${describeType(type)}.` });
        else this.inputs.set(name, { kind: 'literal', value });
        break;
      }
      case 'search':
        this.search = readSearch(parameter, entry, this.errors);
        break;
      case 'fields':
        this.fields = this.namesOf(parameter, entry);
        break;
      case 'expand':
        this.expand = readExpand(this.service.contract, this.entity, parameter, entry.value, this.errors);
        break;
    }
  }

  query(): ListQuery {
    const { search, fields, expand } = this;
    const filters = [...this.fixed(), ...this.filters];
    const sort = this.sorted();
    return { page: this.wanted(sort), sort, filters, search, fields, expand };
  }

  /** What a query of one's own looks for, now and with what was sent. */
  private fixed(): readonly Filter[] {
    const { custom, query } = this.operation;
    if (custom === null || !looksForRecords(custom)) return [];
    for (const parameter of query)
      if (parameter.role === 'input' && !this.inputs.has(parameter.name)) this.notSent(parameter);
    return custom.filters.flatMap((filter) => {
      const value = filter.value.kind === 'input' ? this.inputs.get(filter.value.name) : filter.value;
      return value === undefined ? [] : [fixedFilter(filter, value, this.service.now)];
    });
  }

  private notSent({ name, type, default: usual }: Extract<QueryParameter, { role: 'input' }>): void {
    if (usual !== null) this.inputs.set(name, usual);
    else if (!this.errors.some((error) => 'parameter' in error && error.parameter === name))
      this.errors.push({ parameter: name, code: 'required', message: `Expected ${describeType(type)}.` });
  }

  private sorted(): readonly SortBy[] {
    const { asked, directions, errors } = this;
    // Keys that are wrong are told already; their directions fit nothing.
    if (directions === null || errors.some(({ code }) => code === 'key')) return asked ?? this.usual;
    return withDirections(directions.name, asked ?? [], directions.text, errors);
  }

  private get entity(): string {
    return indexContract(this.service.contract).resources.get(this.operation.resource)?.entity ?? '';
  }

  private wanted(sort: readonly SortBy[]): PageRequest {
    const { size } = this;
    const { custom } = this.operation;
    if (custom?.kind === 'query') return { kind: 'first', size: custom.limit };
    if (custom?.kind === 'find') return { kind: 'first', size: 1 };
    const ceiling = this.operation.paging?.ceiling ?? null;
    if (ceiling !== null) return { kind: 'ceiling', size: ceiling };
    if (size === null) return { kind: 'all' };
    if (this.operation.paging?.style === 'cursor')
      return { kind: 'cursor', cursor: this.readCursor(sort), size };
    return { kind: 'offset', offset: this.offset + (this.number - 1) * size, size };
  }

  private readCursor(sort: readonly SortBy[]): Cursor | null {
    if (this.cursor === null) return null;
    const { filters, search } = this;
    const scope = cursorScope(this.service, this.path(), { sort, filters, search });
    const cursor = readCursor(this.service, scope, this.cursor.text);
    if (cursor === null)
      this.errors.push({
        parameter: this.cursor.name,
        code: 'cursor',
        message: 'Expected a cursor from a page of this list with the same order and filters.',
      });
    return cursor;
  }

  private namesOf(
    parameter: Extract<QueryParameter, { role: 'fields' }>,
    { value }: QueryEntry,
  ): ReadonlySet<string> {
    const wanted = value.split(',');
    for (const name of wanted) {
      if (parameter.names.includes(name)) continue;
      const message = `There is no member ${name.slice(0, 80)}; there are ${parameter.names.join(', ')}.`;
      this.errors.push({ parameter: parameter.name, code: 'member', message });
    }
    return new Set(wanted);
  }

  private count(parameter: QueryParameter, text: string, min: number, max: number): number {
    const value = /^(?:0|[1-9]\d{0,15})$/.test(text) ? Number(text) : NaN;
    if (value >= min && value <= max) return value;
    const limit = max === Number.MAX_SAFE_INTEGER ? '' : ` to ${max}`;
    this.errors.push({
      parameter: parameter.name,
      code: 'range',
      message: `Expected a whole number from ${min}${limit}.`,
    });
    return min;
  }
}
