import { indexModel, type AggregateKind, type Entity, type Model, type ModelIndex } from '../model/index.js';
import { LineReader, tokenize, type Diagnostic } from '../notation/index.js';
import {
  type AcceptedInput,
  type AssignedMember,
  type ChosenOption,
  type ChosenValue,
  type CustomEffect,
  type FixedFilter,
  type Input,
  type ManyEffect,
  type Operand,
  type QueryTerms,
  type OwnComparison,
} from './customOperations.js';
import { aggregateAt, readAggregate } from './aggregateText.js';
import { readMember, readOperand, readOperator, readWhen } from './comparisonText.js';
import { AS_FILTER, relatedByRole, transitionsOf } from './effectNames.js';
import { readFixed } from './fixedText.js';
import { readAccepted, readInputRules, type InputWords } from './inputText.js';
import { readVerify } from './verifyText.js';

/** What was expected, and where in the text: its column, from 1. */
interface Misread {
  readonly ok: false;
  readonly message: string;
  readonly column: number;
}

export type EffectRead = { readonly ok: true; readonly effect: CustomEffect } | Misread;

/**
 * Reads the effect of an operation of one's own from one line, with the names of the model:
 * `first 5 where status = planned and departsAt >= input since by departsAt desc`, `one by departsAt`, `when free = true
 * set free = false, number from body, note unset, berth = input side (port "N1", starboard "S1")`, the same for many, as in
 * `all where departsAt < now set …` or `ids do cancel`, or `make bookings when status = planned set seats = 1, name from
 * body`; `count of bookings where …` as `readAggregate` has it; `verify …` as `readVerify` has it, `revoke token`, `caller`; each of them that has a body with `accepts …` as
 * `readAccepted` has it; `accepts …` alone as `readInputRules` has it; and `answers …` as `readFixed` has it. `entity`:
 * `null` for what is about none.
 */
export function readEffect(model: Model, entity: string | null, text: string): EffectRead {
  const fixed = FIXED.exec(text);
  if (fixed !== null) return readAnswers(fixed);
  if (entity === null) return { ok: false, message: EXPECTED_AT_ENTRY, column: 1 };
  const read = readLine(model, text, (reading) => reading.effect(entity));
  if (!read.ok) return read;
  return read.found === null ? { ok: false, message: EXPECTED, column: 1 } : { ok: true, effect: read.found };
}

export type QueryTermsRead = { readonly ok: true; readonly terms: QueryTerms } | Misread;

/** Reads what is looked for, and in which order: `where status = planned and berth is unset by departsAt desc`. */
export function readQueryTerms(model: Model, entity: Entity, text: string): QueryTermsRead {
  const read = readLine(model, text, (reading) => reading.terms(entity));
  if (!read.ok) return read;
  return read.found === null
    ? { ok: false, message: 'Expected where or by.', column: 1 }
    : { ok: true, terms: read.found };
}

type LineRead<Found> = { readonly ok: true; readonly found: Found | null } | Misread;

function readLine<Found>(
  model: Model,
  text: string,
  read: (reading: Reading) => Found | null,
): LineRead<Found> {
  const diagnostics: Diagnostic[] = [];
  const line = tokenize(text.replace(/\s+/g, ' '), 1);
  const [unreadable] = line.problems;
  if (unreadable !== undefined)
    return { ok: false, message: unreadable.message, column: unreadable.place.column };
  const reader = new LineReader(line, { line: 1, column: text.length + 1, length: 1 }, diagnostics);
  const found = read(new Reading(indexModel(model), reader));
  if (diagnostics.length === 0) reader.finish();
  const [first] = diagnostics;
  return first === undefined
    ? { ok: true, found }
    : { ok: false, message: first.message, column: first.place.column };
}

const EXPECTED =
  'Expected first, one, count, sum, min, max, average, all, ids, verify, revoke token, caller, accepts, when, set or make.';
const EXPECTED_AT_ENTRY = 'Expected answers and what is answered, as in answers { "status": "up" }.';

/** An answer that is always the same: JSON, which the notation does not read. */
const FIXED = /^(\s*answers\b)(.*)$/s;

function readAnswers([, before = '', body = '']: RegExpExecArray): EffectRead {
  const read = readFixed(body);
  return read.ok
    ? { ok: true, effect: { kind: 'fixed', body: read.body } }
    : { ok: false, message: read.message, column: before.length + read.column };
}

/** They go on with the line, and are no names of inputs. */
const GOING_ON: ReadonlySet<string> = new Set([
  'accepts',
  'and',
  'by',
  'default',
  'do',
  'set',
  'when',
  'where',
]);

class Reading {
  constructor(
    private readonly index: ModelIndex,
    private readonly reader: LineReader,
  ) {}

  effect(name: string): CustomEffect | null {
    const { reader } = this;
    const entity = this.index.entities.get(name);
    if (entity === undefined) return null;
    if (reader.take('first')) return this.query(entity);
    if (reader.take('one')) return { kind: 'find', ...this.found(entity) };
    if (reader.take('make')) return this.create(entity);
    if (reader.take('all')) return this.many(entity, { kind: 'condition', filters: this.filters(entity) });
    if (reader.take('ids')) return this.many(entity, { kind: 'ids' });
    if (reader.take('accepts')) return this.accept(entity);
    const aggregate = aggregateAt(reader);
    if (aggregate !== null) return this.aggregate(entity, aggregate);
    if (reader.take('verify')) {
      const verify = readVerify(reader, { read: () => this.member(entity) });
      return verify === null ? null : { ...verify, ...this.accepted(entity) };
    }
    if (reader.takeWords('revoke', 'token')) return { kind: 'revoke' };
    if (reader.take('caller')) return { kind: 'caller' };
    const when = this.when(entity);
    if (!reader.expect('set')) return null;
    return { kind: 'assign', when, values: this.values(entity), ...this.accepted(entity) };
  }

  /** What is looked for among the records of an entity, and their order. */
  terms(entity: Entity): QueryTerms | null {
    return this.found(entity);
  }

  /** What is sent when a record is made, or when a transition is carried out. */
  private accept(entity: Entity): CustomEffect | null {
    const rules = readInputRules(this.reader, this.words(entity));
    if (rules === null) return null;
    if (!this.reader.take('for')) return { kind: 'accept', transition: null, ...rules };
    const transition = this.transition(entity);
    return transition === null ? null : { kind: 'accept', transition, ...rules };
  }

  /** What a line accepts besides; `entity`: whose attributes are sent beside it. */
  private accepted(entity: Entity): { readonly accepts?: readonly AcceptedInput[] } {
    if (!this.reader.take('accepts')) return {};
    const accepts = readAccepted(this.reader, this.words(entity));
    return accepts === null ? {} : { accepts };
  }

  private readonly words = (entity: Entity): InputWords => ({
    member: () => this.member(entity),
    operand: () => this.operand(),
  });

  private query(entity: Entity): CustomEffect | null {
    const limit = this.reader.next();
    if (limit?.kind !== 'number') {
      this.reader.expected('a number after first');
      return null;
    }
    return { kind: 'query', ...this.found(entity), limit: limit.value };
  }

  private aggregate(entity: Entity, of: AggregateKind): CustomEffect | null {
    const read = readAggregate(this.index, this.reader, of, entity.name);
    const last = read === null ? undefined : this.index.entities.get(read.entity);
    return read === null || last === undefined ? null : { ...read.taken, filters: this.filters(last) };
  }

  /** What is looked for, and in which order. */
  private found(entity: Entity): QueryTerms {
    const filters = this.filters(entity);
    const order: { member: string; descending: boolean }[] = [];
    if (this.reader.take('by'))
      do {
        const member = this.member(entity);
        if (member !== null) order.push({ member, descending: this.reader.take('desc') });
      } while (this.reader.take(','));
    return { filters, order };
  }

  private filters(entity: Entity): readonly FixedFilter[] {
    const filters: FixedFilter[] = [];
    if (this.reader.take('where'))
      do this.filter(entity, filters);
      while (this.reader.take('and'));
    return filters;
  }

  /** What is done to many records: `when … set …`, or `do` and a transition. */
  private many(entity: Entity, over: ManyEffect['over']): ManyEffect | null {
    const { reader } = this;
    if (reader.take('do')) {
      const transition = this.transition(entity);
      if (transition === null) return null;
      return { kind: 'many', over, does: { kind: 'transition', transition }, ...this.accepted(entity) };
    }
    const when = this.when(entity);
    if (!reader.take('set')) {
      reader.expected('set and values, or do and a transition');
      return null;
    }
    const values = this.values(entity);
    return { kind: 'many', over, does: { kind: 'assign', when, values }, ...this.accepted(entity) };
  }

  /** The transition that the next word names. */
  private transition(entity: Entity): string | null {
    const word = this.reader.word('the name of a transition');
    if (word === null) return null;
    const all = transitionsOf(entity);
    const found = all.find(({ name }) => name === word.text);
    if (found !== undefined) return found.id;
    const hint = all.length === 0 ? 'It has none.' : `There are ${all.map(({ name }) => name).join(', ')}.`;
    this.reader.report('role.unknown', `${entity.name} has no transition ${word.text}. ${hint}`, word.place);
    return null;
  }

  private filter(entity: Entity, filters: FixedFilter[]): void {
    const member = this.member(entity);
    if (member === null) return;
    if (this.reader.take('is')) {
      const isSet = this.reader.take('set');
      if (!isSet && !this.reader.expect('unset')) return;
      filters.push({ member, operator: 'unset', value: { kind: 'literal', value: !isSet } });
      return;
    }
    const operator = readOperator(this.reader);
    const value = operator === null ? null : (this.input() ?? this.operand());
    if (operator !== null && value !== null) filters.push({ member, operator: AS_FILTER[operator], value });
  }

  private create(entity: Entity): CustomEffect | null {
    const role = this.reader.word('what is made, by its role');
    if (role === null) return null;
    const found = relatedByRole(this.index, entity.name).find((one) => one.role === role.text);
    const made = found === undefined ? undefined : this.index.entities.get(found.made);
    if (found === undefined || made === undefined) {
      const roles = relatedByRole(this.index, entity.name).map((one) => one.role);
      const hint =
        roles.length === 0 ? 'It has nothing that could be made.' : `There are ${roles.join(', ')}.`;
      this.reader.report('role.unknown', `${entity.name} has no ${role.text} to make. ${hint}`, role.place);
      return null;
    }
    const when = this.when(entity);
    const values = this.reader.take('set') ? this.values(made) : [];
    return { kind: 'create', when, relationship: found.relationship, values, ...this.accepted(made) };
  }

  private when(entity: Entity): readonly OwnComparison[] {
    return readWhen(this.index, this.reader, entity);
  }

  private values(entity: Entity): readonly AssignedMember[] {
    const values: AssignedMember[] = [];
    do {
      const member = this.member(entity);
      if (member === null) return values;
      if (this.reader.take('unset')) values.push({ member, value: { kind: 'unset' } });
      else if (this.reader.takeWords('from', 'body')) values.push({ member, value: { kind: 'input' } });
      else if (this.reader.take('=')) {
        const value = this.chosen() ?? this.operand();
        if (value !== null) values.push({ member, value });
      } else this.reader.expected('=, from body, or unset');
    } while (this.reader.take(','));
    return values;
  }

  private member(entity: Entity): string | null {
    return readMember(this.index, this.reader, entity);
  }

  /** `input since`, and what it is where it is not sent. */
  private input(): Input | null {
    const { reader } = this;
    const name = this.inputName();
    if (name === null) return null;
    if (!reader.take('default')) return { kind: 'input', name };
    const value = this.operand();
    return value === null ? null : { kind: 'input', name, default: value };
  }

  /** The name after `input`; a choice may be called input, too. */
  private inputName(): string | null {
    const { reader } = this;
    const name = reader.peek(1);
    if (reader.peek()?.text !== 'input' || reader.peek()?.kind !== 'word') return null;
    if (name?.kind !== 'word' || GOING_ON.has(name.text)) return null;
    reader.next();
    reader.next();
    return name.text;
  }

  /** `input side (port "N1", starboard unset)`: which of the words is sent decides. */
  private chosen(): ChosenValue | null {
    const input = this.inputName();
    if (input === null) return null;
    const options: ChosenOption[] = [];
    if (!this.reader.expect('(')) return { kind: 'chosen', input, options };
    do {
      const option = this.reader.word('a word that is sent');
      if (option === null) break;
      const value = this.reader.take('unset') ? ({ kind: 'unset' } as const) : this.operand();
      if (value !== null) options.push({ option: option.text, value });
    } while (this.reader.take(','));
    this.reader.expect(')');
    return { kind: 'chosen', input, options };
  }

  private operand(): Operand | null {
    return readOperand(this.reader);
  }
}
