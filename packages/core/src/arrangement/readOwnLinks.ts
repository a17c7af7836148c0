import { isJsonObject, type Json } from '../model/index.js';
import { FIXED_OPERATORS, MOST_PARTS } from './customOperations.js';
import { InputReading } from './inputReading.js';
import { EXPECTED_RELATION, LINK_RELATION } from './links.js';
import {
  MOST_OWN_LINKS,
  type AddressPart,
  type BoundFilter,
  type BoundParameter,
  type LinkOperand,
  type OwnLink,
  type OwnLinkTarget,
  type ReachedMember,
} from './ownLinks.js';
import { CUSTOM_ID } from './readCustomOperations.js';
import type { ReadResult } from './reading.js';

/** What a filter that a link sets can compare with. */
export const LINK_OPERATORS = FIXED_OPERATORS.filter(
  (operator): operator is BoundFilter['operator'] => operator !== 'unset',
);
/** The verb of an operation; which there are is known by the contract. */
export const LINK_VERB = /^[a-z]{1,20}$/;
export const LONGEST_ADDRESS_TEXT = 500;
const MOST_SIZE = 1_000_000;

/** Reads the links of one's own that an arrangement has; everything wrong is reported at once. */
export function readOwnLinks(given: Json, pointer: string): ReadResult<readonly OwnLink[]> {
  const reading = new Reading();
  const value = reading.list(given, pointer, MOST_OWN_LINKS, (item, at) => reading.ownLink(item, at));
  reading.reportTwice(value, pointer, 'links');
  return { value, problems: reading.problems };
}

class Reading extends InputReading {
  ownLink(given: Json, at: string): OwnLink | null {
    const one = this.object(given, at, ['id', 'resource', 'relation', 'target', 'when']);
    if (one === null) return null;
    const id = this.text(one, 'id', at, CUSTOM_ID, '1 to 60 letters, digits, hyphens or underscores');
    const resource = this.text(one, 'resource', at, /^.+$/s, 'the id of a resource');
    const relation = this.text(one, 'relation', at, LINK_RELATION, EXPECTED_RELATION);
    const target = this.target(one['target'] ?? null, `${at}/target`);
    const when = this.list(one['when'] ?? [], `${at}/when`, MOST_PARTS, (item, to) =>
      this.comparison(item, to),
    );
    return id === null || resource === null || relation === null || target === null
      ? null
      : { id, resource, relation, target, when };
  }

  private target(given: Json, at: string): OwnLinkTarget | null {
    const kind = isJsonObject(given) ? given['kind'] : undefined;
    switch (kind) {
      case 'operation':
        return this.operation(given, at);
      case 'record': {
        const one = this.object(given, at, ['kind', 'along']);
        const along = one === null ? [] : this.steps(one['along'], `${at}/along`);
        if (along.length === 0) this.report(`${at}/along`, 'length', 'Expected at least one role.');
        return { kind, along };
      }
      case 'address': {
        const one = this.object(given, at, ['kind', 'parts']);
        const parts =
          one === null
            ? []
            : this.list(one['parts'], `${at}/parts`, MOST_PARTS, (item, to) => this.part(item, to));
        if (parts.length === 0) this.report(`${at}/parts`, 'length', 'Expected at least one part.');
        return { kind, parts };
      }
      default:
        this.report(at, 'options', 'Expected an object whose kind is one of operation, record, address.');
        return null;
    }
  }

  private operation(given: Json, at: string): OwnLinkTarget | null {
    const one = this.object(given, at, ['kind', 'resource', 'verb', 'bound', 'filters', 'order', 'size']);
    if (one === null) return null;
    const resource = this.text(one, 'resource', at, /^.+$/s, 'the id of a resource');
    const verb = this.text(one, 'verb', at, LINK_VERB, 'a verb, such as list');
    const size = one['size'] ?? null;
    if (size !== null && !(Number.isInteger(size) && Number(size) >= 1 && Number(size) <= MOST_SIZE))
      this.report(`${at}/size`, 'range', `Expected a whole number from 1 to ${MOST_SIZE}, or null.`);
    const bound = this.list(one['bound'] ?? [], `${at}/bound`, MOST_PARTS, (item, to) =>
      this.bound(item, to),
    );
    const filters = this.list(one['filters'] ?? [], `${at}/filters`, MOST_PARTS, (item, to) =>
      this.boundFilter(item, to),
    );
    const order = this.order(one['order'] ?? [], `${at}/order`);
    return resource === null || verb === null
      ? null
      : {
          kind: 'operation',
          resource,
          verb,
          bound,
          filters,
          order,
          size: size === null ? null : Number(size),
        };
  }

  private bound(given: Json, at: string): BoundParameter | null {
    const one = this.object(given, at, ['parameter', 'value']);
    if (one === null) return null;
    const parameter = this.text(
      one,
      'parameter',
      at,
      /^.+$/s,
      'the identity of an entity, or the name of an input',
    );
    const value = this.linkOperand(one['value'] ?? null, `${at}/value`);
    return parameter === null || value === null ? null : { parameter, value };
  }

  private boundFilter(given: Json, at: string): BoundFilter | null {
    const one = this.object(given, at, ['member', 'operator', 'value']);
    if (one === null) return null;
    const member = this.member(one, at);
    const operator = this.option(one['operator'], `${at}/operator`, LINK_OPERATORS);
    const value = this.linkOperand(one['value'] ?? null, `${at}/value`);
    return member === null || operator === null || value === null ? null : { member, operator, value };
  }

  private linkOperand(given: Json, at: string): LinkOperand | null {
    return isJsonObject(given) && given['kind'] === 'member'
      ? this.reached(given, at)
      : this.operand(given, at);
  }

  private reached(given: Json, at: string): ReachedMember | null {
    const one = this.object(given, at, ['kind', 'along', 'member']);
    if (one === null) return null;
    const along = this.steps(one['along'] ?? [], `${at}/along`);
    const member = this.member(one, at);
    return member === null ? null : { kind: 'member', along, member };
  }

  private part(given: Json, at: string): AddressPart | null {
    if (!isJsonObject(given) || given['kind'] !== 'text') return this.reached(given, at);
    const one = this.object(given, at, ['kind', 'text']);
    const text = one?.['text'];
    if (typeof text === 'string' && text !== '' && text.length <= LONGEST_ADDRESS_TEXT)
      return { kind: 'text', text };
    this.report(`${at}/text`, 'length', `Expected 1 to ${LONGEST_ADDRESS_TEXT} characters.`);
    return null;
  }
}
