import type { ModelCheck } from './modelCheck.js';
import {
  nearest,
  ownerRoleOf,
  roleOf,
  type Declaration,
  type Owns,
  type PairsWith,
  type Relationship,
} from '../model/index.js';
import { checkComputed } from './checkComputed.js';
import { checkAttributes } from './checkAttributes.js';
import { checkValues } from './checkValues.js';
import type { Diagnostic, TextRange } from './diagnostics.js';
import type { Block } from './block.js';
import { MOST_GUESSED } from './lineReader.js';
import { writeInstead } from './otherWords.js';
import type { StatementPlace } from './statementPlace.js';

/**
 * Checks what can only be known once all lines are read: names that stand elsewhere, owners, cycles.
 * Returns the declarations that hold together.
 */
export function resolve(
  declarations: readonly (Declaration | Block)[],
  diagnostics: Diagnostic[],
  places: ReadonlyMap<string, StatementPlace>,
  lines: readonly string[],
): Declaration[] {
  const entities = new Map<string, Block>();
  const values = new Map<string, Block>();
  const checking: ModelCheck = {
    entities,
    values,
    report(id, code, message, word, replacement) {
      const place = placeOf(lines, places.get(id), word);
      const fixes = replacement === undefined ? [] : writeInstead(replacement, place);
      diagnostics.push({ code, message, place, fixes });
    },
    nearest: (name, candidates) => (diagnostics.length < MOST_GUESSED ? nearest(name, candidates) : null),
  };
  const blocks = declarations.filter((item) => 'attributes' in item && 'uniques' in item) as Block[];
  for (const block of blocks) {
    (block.kind === 'entity' ? entities : values).set(block.name, block);
  }
  const kept = keepRelationships(declarations.filter(isRelationship), checking);
  const roles = rolesByEntity(kept);
  for (const block of entities.values()) checkAttributes(block, roles.get(block.name) ?? new Set(), checking);
  for (const block of values.values()) checkAttributes(block, new Set(), checking);
  checkValues(values, checking);
  checkRoles(kept, checking);
  checkComputed(kept, checking);
  const keptRelationships = new Set<Declaration | Block>(kept);
  const keptBlocks = new Set<Declaration | Block>([...entities.values(), ...values.values()]);
  return declarations
    .filter((item) => keptRelationships.has(item) || keptBlocks.has(item))
    .map((item) => (item.kind === 'value' ? withoutUniques(item) : (item as Declaration)));
}

function withoutUniques(
  block: Block | Extract<Declaration, { kind: 'value' }>,
): Extract<Declaration, { kind: 'value' }> {
  const { id, name, description, comments, attributes } = block;
  return { kind: 'value', id, name, description, comments, attributes };
}

const isRelationship = (item: Declaration | Block): item is Relationship =>
  item.kind !== 'entity' && item.kind !== 'value';

/** The place of a word in its statement, or of the whole statement. */
function placeOf(
  lines: readonly string[],
  statement: StatementPlace | undefined,
  word: string | undefined,
): TextRange {
  const { line, column, length } = statement ?? { line: 1, column: 1, length: 1 };
  const text = lines[line - 1] ?? '';
  const index = word === undefined ? -1 : indexOfWord(text, word);
  return index === -1 || word === undefined
    ? { line, column, length }
    : { line, column: index + 1, length: word.length };
}

/** Where a word stands in a line that is not part of a longer one; -1 where it does not. */
function indexOfWord(text: string, word: string): number {
  const isPart = (index: number): boolean => /[\w-]/.test(text.charAt(index));
  let index = text.indexOf(word);
  while (index !== -1 && (isPart(index - 1) || isPart(index + word.length)))
    index = text.indexOf(word, index + 1);
  return index;
}

function keepRelationships(relationships: readonly Relationship[], checking: ModelCheck): Relationship[] {
  const owners = new Map<string, Owns>();
  const kept = relationships.filter((relationship) => {
    const known = [relationship.from, relationship.to].every((name) =>
      entityKnown(relationship, name, checking),
    );
    if (!known || !removalFits(relationship, checking)) return false;
    if (relationship.kind === 'pairs') return carriedKnown(relationship, checking);
    if (relationship.kind !== 'owns') return true;
    return ownerFits(relationship, owners, checking);
  });
  const circular = circularOwnership(owners);
  for (const owns of circular) {
    const message = `${owns.from} owns ${owns.to}, and ${owns.to} owns ${owns.from} in the end: nothing could come first.`;
    checking.report(owns.id, 'owner.cycle', message);
  }
  const singletons = new Set(
    [...owners.values()].filter((owns) => owns.cardinality !== 'many').map((owns) => owns.to),
  );
  return kept.filter((relationship) => {
    if (relationship.kind === 'owns') return !circular.has(relationship);
    const inSlot =
      singletons.has(relationship.to) || (relationship.kind === 'pairs' && singletons.has(relationship.from));
    if (!inSlot) return true;
    const slot = singletons.has(relationship.to) ? relationship.to : relationship.from;
    const message = `${slot} fills a slot of its owner and has no id of its own; refer to the owner instead.`;
    checking.report(relationship.id, 'refers.singleton', message, slot);
    return false;
  });
}

function entityKnown(relationship: Relationship, name: string, checking: ModelCheck): boolean {
  if (checking.entities.has(name)) return true;
  if (checking.values.has(name)) {
    const message = `${name} is a value; relationships join entities. Give ${relationship.from} an attribute of type ${name}.`;
    checking.report(relationship.id, 'entity.unknown', message, name);
    return false;
  }
  const near = checking.nearest(name, checking.entities.keys());
  const hint = near === null ? '' : ` The nearest is ${near}.`;
  checking.report(
    relationship.id,
    'entity.unknown',
    `There is no entity ${name}.${hint}`,
    name,
    near ?? undefined,
  );
  return false;
}

function carriedKnown({ id, carrying }: PairsWith, checking: ModelCheck): boolean {
  if (carrying === null || checking.values.has(carrying)) return true;
  const near = checking.nearest(carrying, checking.values.keys());
  const hint = near === null ? 'Declare it: value …, with its attributes below.' : `The nearest is ${near}.`;
  checking.report(id, 'value.unknown', `There is no value ${carrying}. ${hint}`, carrying, near ?? undefined);
  return false;
}

function removalFits(relationship: Relationship, checking: ModelCheck): boolean {
  const { onRemove } = relationship;
  if (relationship.kind === 'pairs') {
    if (onRemove !== 'cascade') return true;
    const message = 'What is paired stands on its own: on remove is detach or restrict.';
    checking.report(relationship.id, 'remove.rule', message, 'cascade', 'detach');
    return false;
  }
  if (onRemove !== 'detach') return true;
  if (relationship.kind === 'refers' && relationship.cardinality === 'optional') return true;
  const message =
    relationship.kind === 'owns'
      ? 'What is owned cannot outlive its owner: on remove is cascade or restrict.'
      : 'A required reference cannot be detached: on remove is restrict or cascade.';
  checking.report(relationship.id, 'remove.rule', message, 'detach', 'restrict');
  return false;
}

function ownerFits(owns: Owns, owners: Map<string, Owns>, checking: ModelCheck): boolean {
  if (owns.from === owns.to && owns.cardinality !== 'many') {
    checking.report(
      owns.id,
      'owner.cycle',
      `${owns.from} can own many of itself, but not be a slot of itself.`,
    );
    return false;
  }
  const first = owners.get(owns.to);
  if (first === undefined) {
    owners.set(owns.to, owns);
    return true;
  }
  const instead = `each ${owns.to} refers to one ${owns.from}, on remove cascade`;
  checking.report(owns.id, 'owner.second', `${owns.to} is owned by ${first.from} already. Say: ${instead}.`);
  return false;
}

/** The ownerships that lie on a circle of two or more entities. Linear: each entity is walked once. */
function circularOwnership(owners: ReadonlyMap<string, Owns>): Set<Owns> {
  const circular = new Set<Owns>();
  const settled = new Set<string>();
  for (const start of owners.keys()) {
    const trail: string[] = [];
    const onTrail = new Set<string>();
    let name = start;
    while (!settled.has(name) && !onTrail.has(name)) {
      trail.push(name);
      onTrail.add(name);
      const owner = owners.get(name);
      if (owner === undefined || owner.from === name) break;
      name = owner.from;
    }
    if (onTrail.has(name) && !settled.has(name) && trail.at(-1) !== name) {
      for (const member of trail.slice(trail.indexOf(name))) {
        const owns = owners.get(member);
        if (owns !== undefined) circular.add(owns);
      }
    }
    trail.forEach((member) => settled.add(member));
  }
  return circular;
}

/** The to-one roles of each entity: what `within` and unique combinations may name. */
function rolesByEntity(relationships: readonly Relationship[]): Map<string, Set<string>> {
  const roles = new Map<string, Set<string>>();
  const add = (entity: string, role: string): void => {
    const set = roles.get(entity) ?? new Set();
    set.add(role);
    roles.set(entity, set);
  };
  for (const relationship of relationships) {
    if (relationship.kind === 'owns') add(relationship.to, ownerRoleOf(relationship));
    else if (relationship.kind === 'refers') add(relationship.from, roleOf(relationship));
  }
  return roles;
}

/** Attributes and roles of one entity share one set of names, and references one of `<role>Id` members. */
function checkRoles(relationships: readonly Relationship[], checking: ModelCheck): void {
  const used = new Map<string, Set<string>>();
  const take = (relationship: Relationship, entity: string, name: string): void => {
    const block = checking.entities.get(entity);
    const names = used.get(entity) ?? new Set(block?.attributes.map((attribute) => attribute.name));
    used.set(entity, names);
    if (names.has(name)) {
      const message = `${entity} has something called ${name} already; give this role another name.`;
      checking.report(relationship.id, 'role.duplicate', message, name);
    }
    names.add(name);
  };
  for (const relationship of relationships) {
    take(relationship, relationship.from, roleOf(relationship));
    if (relationship.kind === 'owns') take(relationship, relationship.to, ownerRoleOf(relationship));
    else if (relationship.back !== null) take(relationship, relationship.to, relationship.back);
  }
}
