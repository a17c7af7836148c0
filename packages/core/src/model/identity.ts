import type { Attribute, Declaration, Model } from './types.js';

/**
 * Identities outlive names: records, documentation and releases are keyed by them.
 * An identity map goes from the address of an element in the text (`Sailing`, `Sailing.departsAt`,
 * `Route>Sailing:sailings`) to its identity. Unknown addresses are their own identity.
 */
export type Identities = Readonly<Record<string, string>>;

export const declarationAddress = (declaration: Declaration): string => {
  switch (declaration.kind) {
    case 'entity':
    case 'value':
      return declaration.name;
    case 'owns':
    case 'refers':
      return `${declaration.from}>${declaration.to}:${declaration.role ?? ''}`;
  }
};

export const attributeAddress = (owner: string, attribute: string): string => `${owner}.${attribute}`;

/** Every address of the model with the identity it has now. */
export function identitiesOf(model: Model): Map<string, string> {
  const map = new Map<string, string>();
  for (const declaration of model.declarations) {
    map.set(declarationAddress(declaration), declaration.id);
    if (declaration.kind !== 'entity' && declaration.kind !== 'value') continue;
    for (const attribute of declaration.attributes) {
      map.set(attributeAddress(declaration.name, attribute.name), attribute.id);
    }
  }
  return map;
}

/**
 * Carries identities from the model saved before to the model saved now. An element with the same
 * address keeps its identity. Where a block lost exactly one name and gained exactly one with the same
 * shape, that is a rename. Everything else that is new gets an identity that no element had before.
 */
export function reconcile(before: Model, after: Model): Identities {
  const known = identitiesOf(before);
  const taken = new Set(known.values());
  const renamedBlocks = matchBlocks(before, after);
  const result = new Map<string, string>();
  const assign = (address: string, oldAddress: string | undefined): void => {
    const kept = oldAddress === undefined ? undefined : known.get(oldAddress);
    const id = kept ?? fresh(address, taken);
    taken.add(id);
    result.set(address, id);
  };
  const oldBlocks = new Map(blocksOf(before).map((block) => [block.name, block]));
  for (const declaration of after.declarations) {
    const address = declarationAddress(declaration);
    if (declaration.kind === 'owns' || declaration.kind === 'refers') {
      assign(address, oldRelationshipAddress(declaration, renamedBlocks, known));
      continue;
    }
    const oldName = renamedBlocks.get(declaration.name);
    assign(address, oldName);
    const oldBlock = oldName === undefined ? undefined : oldBlocks.get(oldName);
    const renamed = matchAttributes(oldBlock?.attributes ?? [], declaration.attributes);
    for (const attribute of declaration.attributes) {
      const oldAttribute = renamed.get(attribute.name);
      const oldAddress =
        oldName === undefined || oldAttribute === undefined
          ? undefined
          : attributeAddress(oldName, oldAttribute);
      assign(attributeAddress(declaration.name, attribute.name), oldAddress);
    }
  }
  return Object.fromEntries(result);
}

type Block = Extract<Declaration, { kind: 'entity' | 'value' }>;

const blocksOf = (model: Model): Block[] =>
  model.declarations.filter((d): d is Block => d.kind === 'entity' || d.kind === 'value');

/** New block name → old block name, for blocks that are the same one. */
function matchBlocks(before: Model, after: Model): Map<string, string> {
  const shape = (block: Block): string =>
    `${block.kind}:${block.attributes.map((a) => `${a.name}:${a.type.kind}`).join()}`;
  return matchByShape(blocksOf(before), blocksOf(after), shape);
}

const matchAttributes = (before: readonly Attribute[], after: readonly Attribute[]): Map<string, string> =>
  matchByShape(before, after, (attribute) => attribute.type.kind);

function matchByShape<T extends { readonly name: string }>(
  before: readonly T[],
  after: readonly T[],
  shape: (item: T) => string,
): Map<string, string> {
  const oldNames = new Set(before.map((item) => item.name));
  const newNames = new Set(after.map((item) => item.name));
  const matched = new Map(after.filter((i) => oldNames.has(i.name)).map((i) => [i.name, i.name]));
  const lost = before.filter((item) => !newNames.has(item.name));
  const gained = after.filter((item) => !oldNames.has(item.name));
  const [lostOne, gainedOne] = [lost[0], gained[0]];
  if (lost.length === 1 && gained.length === 1 && lostOne !== undefined && gainedOne !== undefined) {
    if (shape(lostOne) === shape(gainedOne)) matched.set(gainedOne.name, lostOne.name);
  }
  return matched;
}

function oldRelationshipAddress(
  relationship: Extract<Declaration, { kind: 'owns' | 'refers' }>,
  renamedBlocks: ReadonlyMap<string, string>,
  known: ReadonlyMap<string, string>,
): string | undefined {
  const address = declarationAddress({
    ...relationship,
    from: renamedBlocks.get(relationship.from) ?? relationship.from,
    to: renamedBlocks.get(relationship.to) ?? relationship.to,
  });
  return known.has(address) ? address : undefined;
}

function fresh(address: string, taken: ReadonlySet<string>): string {
  if (!taken.has(address)) return address;
  for (let version = 2; ; version++) {
    const candidate = `${address}~${version}`;
    if (!taken.has(candidate)) return candidate;
  }
}
