import { listed, literalProblem, replaceItems, type Attribute, type AttributeType } from '../model/index.js';
import { checkLifeCycle } from './checkLifeCycle.js';
import type { Block } from './block.js';
import type { ModelCheck } from './modelCheck.js';
import { meaningsOf, TYPE_WORDS } from './otherWords.js';
import { TYPE_NAMES } from './readType.js';

/** Checks the attributes of one block against each other, the values of the text and the to-one roles. */
export function checkAttributes(block: Block, roles: ReadonlySet<string>, checking: ModelCheck): void {
  let key: Attribute | null = null;
  const kept: Attribute[] = [];
  for (const attribute of block.attributes) {
    if (!typeKnown(attribute, checking)) continue;
    checkKey(block, attribute, key, checking);
    key ??= attribute.key === null ? null : attribute;
    checkFlags(attribute, checking);
    checkLiterals(attribute, checking);
    checkRole(attribute, attribute.uniqueWithin, roles, checking);
    checkRole(attribute, attribute.key?.within ?? null, roles, checking);
    kept.push(checkLifeCycle(block, attribute, checking));
  }
  replaceItems(block.attributes, kept);
  checkUniqueRules(block, roles, checking);
}

/** The type of a value, or of each item of a list. */
export const innermost = (type: AttributeType): AttributeType => (type.kind === 'list' ? type.of : type);

function typeKnown(attribute: Attribute, checking: ModelCheck): boolean {
  const type = innermost(attribute.type);
  if (type.kind !== 'value' || checking.values.has(type.name)) return true;
  if (checking.entities.has(type.name)) {
    const message = `${type.name} is an entity; say how it relates in a sentence: each … refers to one ${type.name}.`;
    checking.report(attribute.id, 'type.unknown', message, type.name);
    return false;
  }
  const near =
    meaningsOf(TYPE_WORDS, type.name)[0]?.write ??
    checking.nearest(type.name, [...checking.values.keys(), ...TYPE_NAMES]);
  const hint = near === null ? '' : ` The nearest is ${near}.`;
  const message = `There is no value ${type.name}.${hint}`;
  checking.report(attribute.id, 'type.unknown', message, type.name, near ?? undefined);
  return false;
}

const KEY_TYPES: readonly AttributeType['kind'][] = ['text', 'integer', 'uuid', 'date', 'email', 'choice'];

function checkKey(block: Block, attribute: Attribute, key: Attribute | null, checking: ModelCheck): void {
  if (attribute.key === null) {
    if (attribute.name === 'id' && block.kind === 'entity') {
      const message = 'An attribute called id is the key; add the flag key, or give it another name.';
      checking.report(attribute.id, 'key.id', message, 'id');
    }
    return;
  }
  if (block.kind === 'value') {
    checking.report(attribute.id, 'flag.conflict', 'A value has no identity, so it has no key.', 'key');
  } else if (key !== null) {
    checking.report(attribute.id, 'key.second', `${block.name} has the key ${key.name} already.`, 'key');
  } else if (!KEY_TYPES.includes(attribute.type.kind)) {
    const message = `A key is ${KEY_TYPES.join(', ')}; ${attribute.type.kind} cannot stand in a path.`;
    checking.report(attribute.id, 'key.type', message, attribute.type.kind);
  }
}

const GENERATED: readonly AttributeType['kind'][] = ['integer', 'uuid', 'instant'];

function checkFlags(attribute: Attribute, checking: ModelCheck): void {
  const conflict = (message: string): void => {
    checking.report(attribute.id, 'flag.conflict', message);
  };
  const { name, type } = attribute;
  if (attribute.generated && !GENERATED.includes(type.kind)) {
    conflict(`The server can make an integer, a uuid or an instant; ${name} is ${type.kind}.`);
  }
  if (attribute.touched && type.kind !== 'instant') {
    conflict(`A touched attribute is an instant; ${name} is ${type.kind}.`);
  }
  if (attribute.readOnly && attribute.writeOnly)
    conflict(`${name} cannot be read-only and write-only at once.`);
  if (attribute.generated && attribute.defaultValue !== null)
    conflict(`${name} is generated; a default is never used.`);
  if (attribute.touched && attribute.generated) conflict(`${name} is set at every change or once, not both.`);
  const made = attribute.generated || attribute.touched;
  if (attribute.readOnly && attribute.required && !made && attribute.defaultValue === null) {
    conflict(`${name} is required but read-only: give it a default, or let the server generate it.`);
  }
  const comparable = type.kind !== 'json' && type.kind !== 'list' && type.kind !== 'value';
  if (!comparable && (attribute.unique || attribute.uniqueWithin !== null)) {
    conflict(`Unique needs values that compare; ${name} is ${type.kind}.`);
  }
}

function checkLiterals(attribute: Attribute, checking: ModelCheck): void {
  const { type } = attribute;
  for (const [flag, literal] of [
    ['default', attribute.defaultValue],
    ['example', attribute.example],
  ] as const) {
    if (literal === null) continue;
    const problem = literalProblem(type, literal);
    if (problem !== null) {
      const message = `The ${flag} of ${attribute.name} does not fit. ${problem}`;
      checking.report(attribute.id, 'literal.invalid', message, flag);
    }
  }
}

function checkRole(
  attribute: Attribute,
  role: string | null,
  roles: ReadonlySet<string>,
  checking: ModelCheck,
): void {
  if (role === null || roles.has(role)) return;
  const near = checking.nearest(role, roles);
  const hint = roles.size === 0 ? 'it has none' : `it has ${listed([...roles])}`;
  const message = `Within names a to-one role of the entity; ${hint}.`;
  checking.report(attribute.id, 'role.unknown', message, role, near ?? undefined);
}

function checkUniqueRules(block: Block, roles: ReadonlySet<string>, checking: ModelCheck): void {
  const names = new Set([...block.attributes.map((attribute) => attribute.name), ...roles]);
  const kept = block.uniques.filter((rule) => {
    if (block.kind === 'value') {
      checking.report(rule.id, 'flag.conflict', 'A value has no identity, so nothing in it is unique.');
      return false;
    }
    const computed = block.attributes.find((one) => one.computed !== null && rule.names.includes(one.name));
    if (computed !== undefined) {
      const message = `${computed.name} is computed, so no rule is about it.`;
      checking.report(rule.id, 'flag.conflict', message, computed.name);
      return false;
    }
    const unknown = rule.names.find((name) => !names.has(name));
    if (unknown === undefined) return true;
    const near = checking.nearest(unknown, names) ?? undefined;
    const message = `${block.name} has no attribute or to-one role ${unknown}.`;
    checking.report(rule.id, 'role.unknown', message, unknown, near);
    return false;
  });
  replaceItems(block.uniques, kept);
}
