import { AGGREGATES, isJsonObject, type Json } from '../model/index.js';
import { WORD } from '../notation/index.js';
import {
  CUSTOM_NAME,
  FIXED_OPERATORS,
  LONGEST_TOKEN,
  MOST_CUSTOM_OPERATIONS,
  MOST_PARTS,
  MOST_QUERIED,
  MOST_SCALE,
  type AssignedMember,
  type CustomEffect,
  type CustomOperation,
  type FixedFilter,
  type ManyEffect,
  type QueryTerms,
  type OwnComparison,
  type TokenRole,
  type VerifyAnswer,
  type VerifyFailure,
} from './customOperations.js';
import { readFixedValue } from './fixedReading.js';
import { InputReading } from './inputReading.js';
import type { ObjectMembers } from './objectReading.js';
import type { ReadResult } from './reading.js';

/** An identity of a custom operation, as the application makes them. */
export const CUSTOM_ID = /^[A-Za-z0-9_-]{1,60}$/;

const EFFECT_KINDS: readonly CustomEffect['kind'][] = [
  'query',
  'find',
  'assign',
  'create',
  'accept',
  'aggregate',
  'many',
  'verify',
  'revoke',
  'caller',
  'fixed',
];
export const VERIFY_FAILURES: readonly VerifyFailure[] = ['unauthenticated', 'missing'];

/** Reads the operations of one's own that an arrangement has; everything wrong is reported at once. */
export function readCustomOperations(given: Json, pointer: string): ReadResult<readonly CustomOperation[]> {
  const reading = new Reading();
  const value = reading.list(given, pointer, MOST_CUSTOM_OPERATIONS, (item, at) => reading.custom(item, at));
  reading.reportTwice(value, pointer, 'operations');
  return { value, problems: reading.problems };
}

class Reading extends InputReading {
  custom(given: Json, at: string): CustomOperation | null {
    const members = this.object(given, at, ['id', 'name', 'entity', 'effect']);
    if (members === null) return null;
    const id = this.text(members, 'id', at, CUSTOM_ID, '1 to 60 letters, digits, hyphens or underscores');
    const name = this.text(members, 'name', at, CUSTOM_NAME, 'a name in camelCase');
    const effectGiven = members['effect'] ?? null;
    const isAboutNone =
      members['entity'] === null && isJsonObject(effectGiven) && effectGiven['kind'] === 'fixed';
    const entity = isAboutNone
      ? null
      : this.text(members, 'entity', at, /^.+$/s, 'the identity of an entity, null for a fixed answer');
    const effect = this.effect(effectGiven, `${at}/effect`);
    return id === null || name === null || (entity === null && !isAboutNone) || effect === null
      ? null
      : { id, name, entity, effect };
  }

  private effect(given: Json, at: string): CustomEffect | null {
    const kind = isJsonObject(given) ? given['kind'] : undefined;
    switch (kind) {
      case 'query': {
        const members = this.object(given, at, ['kind', 'filters', 'order', 'limit']);
        return members === null ? null : this.query(members, at);
      }
      case 'find': {
        const members = this.object(given, at, ['kind', 'filters', 'order']);
        return members === null ? null : { kind, ...this.found(members, at) };
      }
      case 'assign': {
        const members = this.object(given, at, ['kind', 'when', 'values', 'accepts']);
        return members === null
          ? null
          : { kind, ...this.change(members, at), ...this.accepting(members, at) };
      }
      case 'accept':
        return this.accept(given, at);
      case 'create': {
        const members = this.object(given, at, ['kind', 'when', 'relationship', 'values', 'accepts']);
        if (members === null) return null;
        const relationship = this.text(
          members,
          'relationship',
          at,
          /^.+$/s,
          'the identity of a relationship',
        );
        return relationship === null
          ? null
          : { kind, relationship, ...this.change(members, at), ...this.accepting(members, at) };
      }
      case 'aggregate': {
        const members = this.object(given, at, ['kind', 'of', 'along', 'member', 'scale', 'filters']);
        return members === null ? null : this.aggregate(members, at);
      }
      case 'many': {
        const members = this.object(given, at, ['kind', 'over', 'does', 'accepts']);
        return members === null ? null : this.many(members, at);
      }
      case 'verify': {
        const members = this.object(given, at, ['kind', 'compared', 'answers', 'failure', 'accepts']);
        return members === null ? null : this.verify(members, at);
      }
      case 'revoke':
      case 'caller':
        return this.object(given, at, ['kind']) === null ? null : { kind };
      case 'fixed': {
        const members = this.object(given, at, ['kind', 'body']);
        const body = members === null ? null : readFixedValue(this, members['body'] ?? null, `${at}/body`, 0);
        return body === null ? null : { kind, body };
      }
      default:
        this.report(at, 'options', `Expected an object whose kind is one of ${EFFECT_KINDS.join(', ')}.`);
        return null;
    }
  }

  private aggregate(members: ObjectMembers, at: string): CustomEffect | null {
    const of = this.option(members['of'], `${at}/of`, AGGREGATES);
    const along = this.steps(members['along'] ?? [], `${at}/along`);
    const member = members['member'] === null ? null : this.member(members, at);
    const scale = members['scale'] === null ? null : Number(members['scale']);
    if (scale !== null && (!Number.isInteger(scale) || scale < 0 || scale > MOST_SCALE))
      this.report(`${at}/scale`, 'range', `Expected a whole number from 0 to ${MOST_SCALE}, or null.`);
    if (of !== null && (of === 'count') !== (member === null))
      this.report(`${at}/member`, 'options', 'Expected null for a count, else the identity of an attribute.');
    if (of !== null && (of === 'average') !== (scale !== null))
      this.report(`${at}/scale`, 'options', 'Expected a scale for an average, else null.');
    const { filters } = this.found(members, at);
    return of === null ? null : { kind: 'aggregate', of, along, member, scale, filters };
  }

  private many(members: ObjectMembers, at: string): CustomEffect | null {
    const over = this.over(members['over'] ?? null, `${at}/over`);
    const does = this.does(members['does'] ?? null, `${at}/does`);
    return over === null || does === null
      ? null
      : { kind: 'many', over, does, ...this.accepting(members, at) };
  }

  private over(given: Json, at: string): ManyEffect['over'] | null {
    const kind = isJsonObject(given) ? given['kind'] : undefined;
    if (kind === 'ids') return this.object(given, at, ['kind']) === null ? null : { kind };
    const one = this.object(given, at, ['kind', 'filters']);
    if (one !== null && kind !== 'condition')
      this.report(`${at}/kind`, 'options', 'Expected condition or ids.');
    if (one === null || kind !== 'condition') return null;
    return { kind, filters: this.found(one, at).filters };
  }

  private does(given: Json, at: string): ManyEffect['does'] | null {
    const kind = isJsonObject(given) ? given['kind'] : undefined;
    if (kind === 'transition') {
      const one = this.object(given, at, ['kind', 'transition']);
      const transition =
        one === null ? null : this.text(one, 'transition', at, /^.+$/s, 'the identity of a transition');
      return transition === null ? null : { kind, transition };
    }
    const one = this.object(given, at, ['kind', 'when', 'values']);
    if (one !== null && kind !== 'assign')
      this.report(`${at}/kind`, 'options', 'Expected assign or transition.');
    return one === null || kind !== 'assign' ? null : { kind, ...this.change(one, at) };
  }

  private verify(members: ObjectMembers, at: string): CustomEffect | null {
    const compared = this.list(members['compared'] ?? [], `${at}/compared`, MOST_PARTS, (item, to) => {
      const one = this.object(item, to, ['member', 'input']);
      if (one === null) return null;
      const member = this.member(one, to);
      const input = this.text(one, 'input', to, CUSTOM_NAME, 'a name in camelCase');
      return member === null || input === null ? null : { member, input };
    });
    if (compared.length === 0) this.report(`${at}/compared`, 'length', 'Expected at least one comparison.');
    const answers = this.verifyAnswer(members['answers'] ?? null, `${at}/answers`);
    const failure = this.option(members['failure'], `${at}/failure`, VERIFY_FAILURES);
    return answers === null || failure === null
      ? null
      : { kind: 'verify', compared, answers, failure, ...this.accepting(members, at) };
  }

  private verifyAnswer(given: Json, at: string): VerifyAnswer | null {
    if (isJsonObject(given) && given['kind'] === 'record')
      return this.object(given, at, ['kind']) === null ? null : { kind: 'record' };
    const one = this.object(given, at, ['kind', 'seconds', 'role']);
    if (one?.['kind'] !== 'token') {
      if (one !== null) this.report(`${at}/kind`, 'options', 'Expected record or token.');
      return null;
    }
    const seconds = one['seconds'];
    if (!Number.isInteger(seconds) || Number(seconds) < 1 || Number(seconds) > LONGEST_TOKEN)
      this.report(`${at}/seconds`, 'range', `Expected a whole number from 1 to ${LONGEST_TOKEN}.`);
    const role = one['role'] === null ? null : this.tokenRole(one['role'] ?? null, `${at}/role`);
    return { kind: 'token', seconds: Number(seconds), role };
  }

  private tokenRole(given: Json, at: string): TokenRole | null {
    const kind = isJsonObject(given) ? given['kind'] : undefined;
    if (kind === 'attribute') {
      const one = this.object(given, at, ['kind', 'attribute']);
      const attribute =
        one === null ? null : this.text(one, 'attribute', at, /^.+$/s, 'the identity of an attribute');
      return attribute === null ? null : { kind, attribute };
    }
    const one = this.object(given, at, ['kind', 'role']);
    if (one !== null && kind !== 'fixed')
      this.report(`${at}/kind`, 'options', 'Expected fixed or attribute.');
    const role = one === null ? null : this.text(one, 'role', at, WORD, 'a word');
    return role === null || kind !== 'fixed' ? null : { kind, role };
  }

  private query(members: ObjectMembers, at: string): CustomEffect {
    const limit = members['limit'];
    if (!Number.isInteger(limit) || Number(limit) < 1 || Number(limit) > MOST_QUERIED)
      this.report(`${at}/limit`, 'range', `Expected a whole number from 1 to ${MOST_QUERIED}.`);
    return { kind: 'query', ...this.found(members, at), limit: Number(limit) };
  }

  private found(members: ObjectMembers, at: string): QueryTerms {
    return {
      filters: this.list(members['filters'] ?? [], `${at}/filters`, MOST_PARTS, (item, to) =>
        this.filter(item, to),
      ),
      order: this.order(members['order'] ?? [], `${at}/order`),
    };
  }

  private change(
    members: ObjectMembers,
    at: string,
  ): { readonly when: readonly OwnComparison[]; readonly values: readonly AssignedMember[] } {
    return {
      when: this.list(members['when'] ?? [], `${at}/when`, MOST_PARTS, (item, to) =>
        this.comparison(item, to),
      ),
      values: this.list(members['values'] ?? [], `${at}/values`, MOST_PARTS, (item, to) =>
        this.assigned(item, to),
      ),
    };
  }

  private filter(given: Json, at: string): FixedFilter | null {
    const one = this.object(given, at, ['member', 'operator', 'value']);
    if (one === null) return null;
    const member = this.member(one, at);
    const operator = this.option(one['operator'], `${at}/operator`, FIXED_OPERATORS);
    const value = this.input(one['value'] ?? null, `${at}/value`);
    return member === null || operator === null || value === null ? null : { member, operator, value };
  }

  private assigned(given: Json, at: string): AssignedMember | null {
    const one = this.object(given, at, ['member', 'value']);
    if (one === null) return null;
    const member = this.member(one, at);
    const kind = isJsonObject(one['value']) ? one['value']['kind'] : undefined;
    const value =
      kind === 'unset' || kind === 'input'
        ? ({ kind } as const)
        : kind === 'chosen'
          ? this.chosen(one['value'] ?? null, `${at}/value`)
          : this.operand(one['value'] ?? null, `${at}/value`);
    return member === null || value === null ? null : { member, value };
  }
}
