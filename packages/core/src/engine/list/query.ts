import type { Contract, Operation, QueryParameter } from '../../contract/index.js';
import type { ProblemDetail } from '../message.js';
import type { QueryEntry } from '../target.js';
import { readFilter, type Filter } from './filter.js';
import { readSort, type SortBy } from './sort.js';

/** A list query, typed and checked. */
export interface ListQuery {
  /** How many records come before the page. */
  readonly offset: number;
  /** How many records it holds at most; `null` where everything is answered at once. */
  readonly size: number | null;
  readonly sort: readonly SortBy[];
  readonly filters: readonly Filter[];
}

export type QueryResult =
  | { readonly ok: true; readonly query: ListQuery }
  | { readonly ok: false; readonly errors: readonly ProblemDetail[] };

/** `distance[gte]`: a name and an operator. */
const BRACKETED = /^([^[\]]+)\[([^[\]]*)\]$/;

/** Reads the query parameters of an operation; every parameter that is wrong is reported. */
export function readListQuery(
  { paging }: Contract,
  operation: Operation,
  entries: readonly QueryEntry[],
  unreadable: readonly string[],
): QueryResult {
  const errors: ProblemDetail[] = unreadable.map((pair) => ({
    parameter: pair.slice(0, 80),
    code: 'encoding',
    message: 'Expected percent-encoded UTF-8.',
  }));
  const byName = new Map(operation.query.map((parameter) => [parameter.name, parameter]));
  const isClamped = paging.oversize === 'clamped';
  const read = new Reading(operation, isClamped, errors);
  const seen = new Set<string>();
  for (const entry of entries) {
    const [, base, operator] = BRACKETED.exec(entry.name) ?? [];
    const parameter = byName.get(base ?? entry.name);
    const isMeant = parameter !== undefined && (base === undefined || takesOperators(parameter));
    if (!isMeant) {
      if (operation.unknownParameters === 'refused') errors.push(unknownParameter(entry.name, byName));
      continue;
    }
    // A plain equality is the same parameter as the one with its operator.
    const key = parameter.role === 'filter' ? `${parameter.name}[${operator ?? 'eq'}]` : parameter.name;
    if (seen.has(key)) {
      const message = `The parameter ${entry.name} stands twice.`;
      errors.push({ parameter: entry.name, code: 'repeated', message });
      continue;
    }
    seen.add(key);
    read.take(parameter, entry, operator ?? 'eq');
  }
  return errors.length === 0 ? { ok: true, query: read.query() } : { ok: false, errors };
}

const takesOperators = (parameter: QueryParameter): boolean =>
  parameter.role === 'filter' && !(parameter.operators.length === 1 && parameter.operators[0] === 'eq');

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
  private sort: readonly SortBy[] = [];
  private readonly filters: Filter[] = [];

  constructor(
    operation: Operation,
    private readonly isClamped: boolean,
    private readonly errors: ProblemDetail[],
  ) {
    const size = operation.query.find((parameter) => parameter.role === 'size');
    this.size = size?.role === 'size' ? size.default : null;
  }

  take(parameter: QueryParameter, entry: QueryEntry, operator: string): void {
    switch (parameter.role) {
      case 'page':
        this.number = this.count(parameter, entry.value, 1, Number.MAX_SAFE_INTEGER);
        break;
      case 'offset':
        this.offset = this.count(parameter, entry.value, 0, Number.MAX_SAFE_INTEGER);
        break;
      case 'size':
        this.size = this.isClamped
          ? Math.min(parameter.max, this.count(parameter, entry.value, 1, Number.MAX_SAFE_INTEGER))
          : this.count(parameter, entry.value, 1, parameter.max);
        break;
      case 'sort':
        this.sort = readSort(parameter, entry.value, this.errors);
        break;
      case 'filter': {
        const filter = readFilter(parameter, operator, entry, this.errors);
        if (filter !== null) this.filters.push(filter);
        break;
      }
    }
  }

  query(): ListQuery {
    const { size, sort, filters } = this;
    return { offset: this.offset + (this.number - 1) * (size ?? 0), size, sort, filters };
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
