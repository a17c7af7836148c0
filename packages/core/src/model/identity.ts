import type { Attribute, Declaration, Model, Relationship } from './types.js';

/**
 * Identities outlive names: records, documentation and releases are keyed by them.
 * An identity map goes from the address of an element in the text (`Sailing`, `Sailing.departsAt`,
 * `Route>Sailing:sailings`) to its identity. Unknown addresses are their own identity.
 */
export type Identities = { readonly [name: string]: string };

export const declarationAddress = (declaration: Declaration): string => {
  switch (declaration.kind) {
    case 'entity':
    case 'value':
      return declaration.name;
    case 'owns':
    case 'refers':
    case 'pairs':
      return `${declaration.from}>${declaration.to}:${declaration.role ?? ''}`;
  }
};

export const transitionAddress = (owner: string, attribute: string, transition: string): string =>
  `${owner}.${attribute}/${transition}`;

export const attributeAddress = (owner: string, attribute: string): string => `${owner}.${attribute}`;

/** Every address of the model with the identity it has now. */
export function identitiesOf(model: Model): Map<string, string> {
  const map = new Map<string, string>();
  for (const declaration of model.declarations) {
    map.set(declarationAddress(declaration), declaration.id);
    if (declaration.kind !== 'entity' && declaration.kind !== 'value') continue;
    for (const attribute of declaration.attributes) {
      map.set(attributeAddress(declaration.name, attribute.name), attribute.id);
      for (const { name, id } of attribute.lifeCycle ?? []) {
        map.set(transitionAddress(declaration.name, attribute.name, name), id);
      }
    }
  }
  return map;
}

/** A rename that somebody declared, as addresses in the model before and in the model after. */
export interface DeclaredRename {
  readonly from: string;
  readonly to: string;
}

/**
 * Carries identities from the model saved before to the model saved now. An element with the same
 * address keeps its identity. Where a block lost exactly one name and gained exactly one with the same
 * shape, that is a rename; so is what somebody declared one. Everything else that is new gets an identity
 * that no element had before.
 */
export function reconcile(before: Model, after: Model, declared: DeclaredRename | null = null): Identities {
  const known = identitiesOf(before);
  const taken = new Set(known.values());
  const renamedBlocks = matchByShape(
    blocksOf(before),
    blocksOf(after),
    blockShape,
    declaredName(declared, ''),
  );
  const result = new Map<string, string>();
  const assign = (address: string, oldAddress: string | undefined): void => {
    const kept = oldAddress === undefined ? undefined : known.get(oldAddress);
    const id = kept ?? fresh(address, taken);
    taken.add(id);
    result.set(address, id);
  };
  const oldBlocks = new Map(blocksOf(before).map((block) => [block.name, block]));
  const renamedRelationships = matchRelationships(before, after, renamedBlocks, declared);
  for (const declaration of after.declarations) {
    const address = declarationAddress(declaration);
    if (declaration.kind !== 'entity' && declaration.kind !== 'value') {
      assign(address, renamedRelationships.get(address));
      continue;
    }
    const oldName = renamedBlocks.get(declaration.name);
    assign(address, oldName);
    const oldBlock = oldName === undefined ? undefined : oldBlocks.get(oldName);
    const renamed = matchByShape(
      oldBlock?.attributes ?? [],
      declaration.attributes,
      ({ type }) => type.kind,
      declaredName(declared, `${declaration.name}.`),
    );
    for (const attribute of declaration.attributes) {
      const oldAttribute = renamed.get(attribute.name);
      const oldAddress =
        oldName === undefined || oldAttribute === undefined
          ? undefined
          : attributeAddress(oldName, oldAttribute);
      assign(attributeAddress(declaration.name, attribute.name), oldAddress);
      assignTransitions(
        assign,
        declaration.name,
        attribute,
        oldName,
        oldBlock?.attributes.find(({ name }) => name === oldAttribute),
        declared,
      );
    }
  }
  return Object.fromEntries(result);
}

type Block = Extract<Declaration, { kind: 'entity' | 'value' }>;

const blocksOf = (model: Model): Block[] =>
  model.declarations.filter((d): d is Block => d.kind === 'entity' || d.kind === 'value');

const blockShape = (block: Block): string =>
  `${block.kind}:${block.attributes.map((a) => `${a.name}:${a.type.kind}`).join()}`;

/** New name → old name of a declared rename, where it is one of names that stand behind `prefix`. */
function declaredName(declared: DeclaredRename | null, prefix: string): ReadonlyMap<string, string> {
  if (declared?.to.startsWith(prefix) !== true) return new Map();
  const name = declared.to.slice(prefix.length);
  if (/[./>]/.test(name)) return new Map();
  return new Map([
    [name, declared.from.slice(Math.max(declared.from.lastIndexOf('.'), declared.from.lastIndexOf('/')) + 1)],
  ]);
}

/** New name → old name, for items that are the same one. */
function matchByShape<T extends { readonly name: string }>(
  before: readonly T[],
  after: readonly T[],
  shape: (item: T) => string,
  declared: ReadonlyMap<string, string>,
): Map<string, string> {
  const declaredOld = new Set(declared.values());
  const oldNames = new Set(before.map(({ name }) => name).filter((name) => !declaredOld.has(name)));
  const newNames = new Set(after.map(({ name }) => name));
  const matched = new Map(after.filter((i) => oldNames.has(i.name)).map((i) => [i.name, i.name]));
  for (const [name, old] of declared) matched.set(name, old);
  const lost = before.filter(({ name }) => !newNames.has(name) && !declaredOld.has(name));
  const gained = after.filter(({ name }) => !matched.has(name));
  const [lostOne, gainedOne] = [lost[0], gained[0]];
  if (lost.length === 1 && gained.length === 1 && lostOne !== undefined && gainedOne !== undefined) {
    if (shape(lostOne) === shape(gainedOne)) matched.set(gainedOne.name, lostOne.name);
  }
  return matched;
}

type Assign = (address: string, oldAddress: string | undefined) => void;

function assignTransitions(
  assign: Assign,
  block: string,
  attribute: Attribute,
  oldBlock: string | undefined,
  oldAttribute: Attribute | undefined,
  declared: DeclaredRename | null,
): void {
  const now = attribute.lifeCycle ?? [];
  const within = declaredName(declared, `${attributeAddress(block, attribute.name)}/`);
  const matched = matchByShape(oldAttribute?.lifeCycle ?? [], now, ({ to }) => to, within);
  for (const { name } of now) {
    const oldName = matched.get(name);
    const known = oldBlock !== undefined && oldAttribute !== undefined && oldName !== undefined;
    const oldAddress = known ? transitionAddress(oldBlock, oldAttribute.name, oldName) : undefined;
    assign(transitionAddress(block, attribute.name, name), oldAddress);
  }
}

/**
 * New address → old address of relationships. Where two entities lost one relationship of a kind and gained
 * one, its role was renamed.
 */
function matchRelationships(
  before: Model,
  after: Model,
  renamedBlocks: ReadonlyMap<string, string>,
  declared: DeclaredRename | null,
): Map<string, string> {
  const old = new Map(
    relationshipsOf(before).map((relationship) => [declarationAddress(relationship), relationship]),
  );
  const matched = new Map<string, string>();
  const gained = new Map<string, Relationship[]>();
  const inOldNames = (relationship: Relationship): Relationship => ({
    ...relationship,
    from: renamedBlocks.get(relationship.from) ?? relationship.from,
    to: renamedBlocks.get(relationship.to) ?? relationship.to,
  });
  const ends = ({ kind, from, to }: Relationship): string => `${kind} ${from} ${to}`;
  for (const relationship of relationshipsOf(after)) {
    const isDeclared = declared !== null && declared.to === declarationAddress(relationship);
    const address = isDeclared ? declared.from : declarationAddress(inOldNames(relationship));
    if (old.has(address)) {
      matched.set(declarationAddress(relationship), address);
      old.delete(address);
    } else {
      const key = ends(inOldNames(relationship));
      gained.set(key, [...(gained.get(key) ?? []), relationship]);
    }
  }
  const lost = new Map<string, string[]>();
  for (const [address, relationship] of old)
    lost.set(ends(relationship), [...(lost.get(ends(relationship)) ?? []), address]);
  for (const [key, relationships] of gained) {
    const [relationship] = relationships;
    const addresses = lost.get(key) ?? [];
    const [address] = addresses;
    if (
      relationships.length === 1 &&
      addresses.length === 1 &&
      relationship !== undefined &&
      address !== undefined
    ) {
      matched.set(declarationAddress(relationship), address);
    }
  }
  return matched;
}

const relationshipsOf = (model: Model): Relationship[] =>
  model.declarations.filter((d): d is Relationship => d.kind !== 'entity' && d.kind !== 'value');

function fresh(address: string, taken: ReadonlySet<string>): string {
  if (!taken.has(address)) return address;
  for (let version = 2; ; version++) {
    const candidate = `${address}~${version}`;
    if (!taken.has(candidate)) return candidate;
  }
}
