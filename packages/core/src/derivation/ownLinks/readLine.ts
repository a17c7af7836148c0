import {
  AS_FILTER,
  EXPECTED_RELATION,
  LINK_RELATION,
  readOperand,
  readOperator,
  readStep,
  readWhen,
  type AddressPart,
  type BoundFilter,
  type BoundParameter,
  type LinkOperand,
  type OwnLink,
  type OwnLinkTarget,
  type ReachedMember,
} from '../../arrangement/index.js';
import type { Contract, Operation } from '../../contract/index.js';
import type { Entity, Model } from '../../model/index.js';
import { LineReader, tokenize, type Diagnostic } from '../../notation/index.js';
import { boundable, lineNames, linkableMembers, type LineNames } from './lineNames.js';

/** What a line says of a link. */
export type LinkSaid = Pick<OwnLink, 'relation' | 'target' | 'when'>;

export type LinkLineRead =
  | { readonly ok: true; readonly link: LinkSaid }
  /** What was expected, and where in the text: its column, from 1. */
  | { readonly ok: false; readonly message: string; readonly column: number };

const RELATION = /^(\s*)(\S*)(\s*)(->)?/;

/**
 * Reads a link of one's own from one line, with the names of the model and the contract. `resource`: the id of the one
 * that offers it.
 *
 *     next-sailings -> listSailings where status = planned, sort departsAt desc, size 5
 *     nearest -> readHarbour with harbourCode = self.origin when status = planned
 *     captain -> sailing.master
 *     manual -> "https://docs.example/harbours/{code}"
 */
export function readLinkLine(model: Model, contract: Contract, resource: string, text: string): LinkLineRead {
  const [begin = '', before = '', relation = '', , arrow] = RELATION.exec(text) ?? [];
  if (!LINK_RELATION.test(relation))
    return {
      ok: false,
      message: `Expected ${EXPECTED_RELATION}.`,
      column: before.length + 1,
    };
  if (arrow === undefined)
    return { ok: false, message: 'Expected -> and where the link leads.', column: begin.length + 1 };
  const rest = ' '.repeat(begin.length) + text.slice(begin.length).replace(/\s/g, ' ');
  const line = tokenize(rest, 1);
  const [unreadable] = line.problems;
  if (unreadable !== undefined)
    return { ok: false, message: unreadable.message, column: unreadable.place.column };
  const diagnostics: Diagnostic[] = [];
  const reader = new LineReader(line, { line: 1, column: text.length + 1, length: 1 }, diagnostics);
  const said = new Reading(lineNames(model, contract, resource), reader).link();
  if (diagnostics.length === 0) reader.finish();
  const [first] = diagnostics;
  if (first !== undefined) return { ok: false, message: first.message, column: first.place.column };
  return said === null
    ? { ok: false, message: EXPECTED, column: begin.length + 1 }
    : { ok: true, link: { relation, ...said } };
}

const EXPECTED = 'Expected an operation, a role, or an address in quotes.';

/** `{code}` and `{route.code}` in an address. */
const VARIABLE = /\{([^{}]*)\}/g;

class Reading {
  constructor(
    private readonly names: LineNames,
    private readonly reader: LineReader,
  ) {}

  link(): Omit<LinkSaid, 'relation'> | null {
    const { reader, names } = this;
    const target = this.target();
    if (target === null) return null;
    return { target, when: names.from === null ? [] : readWhen(names.index, reader, names.from) };
  }

  private target(): OwnLinkTarget | null {
    const token = this.reader.peek();
    if (token?.kind === 'string') {
      this.reader.next();
      return this.address(token.value);
    }
    if (token?.kind !== 'word') {
      this.reader.expected('an operation, a role, or an address in quotes');
      return null;
    }
    const { from } = this.names;
    if (from !== null && this.names.roles(from.name).has(token.text)) return this.record(from);
    const operation = this.names.operation(token.text);
    if (operation === undefined) {
      this.reader.report(
        'role.unknown',
        `There is no operation ${token.text}${from === null ? '' : `, and ${from.name} has no such role`}.`,
        token.place,
      );
      return null;
    }
    this.reader.next();
    return this.operation(operation);
  }

  private record(from: Entity): OwnLinkTarget | null {
    const along: { relationship: string; direction: 'onwards' | 'back' }[] = [];
    let entity = from.name;
    do {
      const step = readStep(this.names.index, this.reader, entity);
      if (step === null) return null;
      along.push({ relationship: step.relationship.id, direction: step.direction });
      entity = step.to;
    } while (this.reader.take('.'));
    return { kind: 'record', along };
  }

  private operation(operation: Operation): OwnLinkTarget {
    const { reader, names } = this;
    const entity = names.entityOf(operation);
    const bound: BoundParameter[] = [];
    const filters: BoundFilter[] = [];
    const order: { member: string; descending: boolean }[] = [];
    let size: number | null = null;
    for (;;) {
      reader.take(',');
      if (reader.take('with')) this.each(() => this.bind(operation, bound));
      else if (entity !== undefined && reader.take('where')) this.each(() => this.filter(entity, filters));
      else if (entity !== undefined && reader.take('sort')) {
        do {
          const member = this.member(entity);
          if (member !== null) order.push({ member, descending: reader.take('desc') });
        } while (reader.take('then'));
      } else if (reader.take('size')) size = this.size();
      else break;
    }
    const { resource, verb } = operation;
    return { kind: 'operation', resource, verb, bound, filters, order, size };
  }

  private each(read: () => void): void {
    do read();
    while (this.reader.take('and'));
  }

  private bind(operation: Operation, bound: BoundParameter[]): void {
    const all = boundable(this.names, operation);
    const word = this.reader.word('the name of a parameter');
    if (word === null) return;
    const found = all.find(({ name }) => name === word.text);
    if (found === undefined) {
      const hint = all.length === 0 ? 'It has none.' : `There are ${all.map(({ name }) => name).join(', ')}.`;
      this.reader.report(
        'role.unknown',
        `${operation.id} has no parameter ${word.text}. ${hint}`,
        word.place,
      );
      return;
    }
    if (!this.reader.expect('=')) return;
    const value = this.value();
    if (value !== null) bound.push({ parameter: found.parameter, value });
  }

  private filter(entity: Entity, filters: BoundFilter[]): void {
    const member = this.member(entity);
    const operator = member === null ? null : readOperator(this.reader);
    const value = operator === null ? null : this.value();
    const written = operator === null ? 'unset' : AS_FILTER[operator];
    if (member !== null && value !== null && written !== 'unset')
      filters.push({ member, operator: written, value });
  }

  private size(): number | null {
    const token = this.reader.peek();
    if (token?.kind === 'number' && Number.isInteger(token.value) && token.value >= 1) {
      this.reader.next();
      return token.value;
    }
    this.reader.expected('a whole number of records');
    return null;
  }

  /** `self.code`, `self.route.code`, or what is known from the start. */
  private value(): LinkOperand | null {
    const { reader, names } = this;
    if (names.from === null || reader.peek()?.text !== 'self' || reader.peek(1)?.text !== '.')
      return readOperand(reader);
    reader.next();
    const path: string[] = [];
    while (reader.take('.')) {
      const word = reader.word('the name of an attribute or a role');
      if (word === null) return null;
      path.push(word.text);
    }
    return this.reached(names.from, path);
  }

  private reached(from: Entity, path: readonly string[]): ReachedMember | null {
    const place = this.reader.last()?.place ?? this.reader.here();
    const along: { relationship: string; direction: 'onwards' | 'back' }[] = [];
    let entity: Entity | undefined = from;
    for (const role of path.slice(0, -1)) {
      const found = this.names.roles(entity.name).get(role);
      if (found === undefined) {
        this.reader.report('role.unknown', `${entity.name} has no role ${role}.`, place);
        return null;
      }
      along.push({ relationship: found.relationship.id, direction: found.direction });
      entity = this.names.index.entities.get(found.to);
      if (entity === undefined) return null;
    }
    const last = path.at(-1) ?? '';
    const member = linkableMembers(this.names.index, entity).find(({ name }) => name === last);
    if (member !== undefined) return { kind: 'member', along, member: member.id };
    this.reader.report(
      'role.unknown',
      `${entity.name} has no ${last === '' ? 'such attribute' : last}.`,
      place,
    );
    return null;
  }

  private member(entity: Entity): string | null {
    const word = this.reader.word('the name of an attribute or a role');
    if (word === null) return null;
    const found = linkableMembers(this.names.index, entity).find(({ name }) => name === word.text);
    if (found === undefined)
      this.reader.report('role.unknown', `${entity.name} has no ${word.text}.`, word.place);
    return found?.id ?? null;
  }

  private address(text: string): OwnLinkTarget | null {
    const parts: AddressPart[] = [];
    let end = 0;
    const literal = (until: number): void => {
      if (until > end) parts.push({ kind: 'text', text: text.slice(end, until) });
    };
    for (const found of text.matchAll(VARIABLE)) {
      literal(found.index);
      end = found.index + found[0].length;
      const { from } = this.names;
      if (from === null) {
        this.reader.report(
          'role.unknown',
          'No record offers it, so that nothing can be filled in.',
          this.reader.last()?.place ?? this.reader.here(),
        );
        return null;
      }
      const part = this.reached(from, (found[1] ?? '').split('.'));
      if (part === null) return null;
      parts.push(part);
    }
    literal(text.length);
    if (parts.length > 0) return { kind: 'address', parts };
    this.reader.report(
      'role.unknown',
      'Expected an address.',
      this.reader.last()?.place ?? this.reader.here(),
    );
    return null;
  }
}
