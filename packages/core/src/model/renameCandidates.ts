import {
  declarationAddress,
  attributeAddress,
  reconcile,
  transitionAddress,
  type Identities,
} from './identity.js';
import type { Model } from './types.js';

export type ElementKind = 'entity' | 'value' | 'attribute' | 'transition' | 'relationship';

/** An element that went or came when a text was saved. */
export interface RenameCandidate {
  readonly kind: ElementKind;
  /** Where it stands: the block of an attribute, the attribute of a transition, the two candidates of a relationship. */
  readonly within: string;
  readonly address: string;
  readonly identity: string;
  /** The revision with which it went or came. */
  readonly revision: number;
}

/** What went and came lately, and was not told to be a rename. */
export interface RenameCandidates {
  readonly removed: readonly RenameCandidate[];
  readonly added: readonly RenameCandidate[];
}

export const NO_RENAME_CANDIDATES: RenameCandidates = { removed: [], added: [] };

/** Loose candidates are kept for so many revisions after they came about. */
const REVISIONS_KEPT = 30;
const MOST_KEPT = 60;

/** The loose candidates after a model was saved as another one with the given revision. */
export function trackRenames(
  candidates: RenameCandidates,
  before: Model,
  after: Model,
  revision: number,
): RenameCandidates {
  const [was, is] = [elementsOf(before, revision), elementsOf(after, revision)];
  const recent = ({ revision: at }: RenameCandidate): boolean => revision - at < REVISIONS_KEPT;
  const removed = [
    ...candidates.removed.filter(recent),
    ...[...was.values()].filter(({ identity }) => !is.has(identity)),
  ];
  // What comes back is nothing new.
  const known = new Set([...was.keys(), ...candidates.removed.map(({ identity }) => identity)]);
  const added = [
    ...candidates.added.filter(recent),
    ...[...is.values()].filter(({ identity }) => !known.has(identity)),
  ];
  return {
    removed: removed.filter(({ identity }) => !is.has(identity)).slice(-MOST_KEPT),
    added: added.filter(({ identity, address }) => is.get(identity)?.address === address).slice(-MOST_KEPT),
  };
}

/** A pair of elements that may be one element under two names. */
export interface PossibleRename {
  readonly kind: ElementKind;
  readonly from: string;
  readonly to: string;
}

const MOST_ASKED = 4;

/** What went and what came in the same place: each may have been a rename. The latest first. */
export function possibleRenames({ removed, added }: RenameCandidates): readonly PossibleRename[] {
  const found: PossibleRename[] = [];
  for (const to of [...added].reverse()) {
    const from = [...removed].reverse().find(({ kind, within }) => kind === to.kind && within === to.within);
    if (from !== undefined) found.push({ kind: to.kind, from: from.address, to: to.address });
  }
  return found.slice(0, MOST_ASKED);
}

/**
 * The identities of a model after a rename was declared: elements that came with it get the identities of
 * those that went, their parts included. `before` is the last model that still had what went.
 */
export function declareRename(
  before: Model,
  after: Model,
  identities: Identities,
  { from, to }: { readonly from: string; readonly to: string },
): Identities {
  const carried = reconcile(before, after, { from, to });
  const inUse = new Set(Object.values(identities));
  const known = new Set(elementsOf(before, 0).keys());
  return Object.fromEntries(
    Object.entries(identities).map(([address, identity]) => {
      const old = carried[address];
      return [address, old !== undefined && known.has(old) && !inUse.has(old) ? old : identity];
    }),
  );
}

/** Everything with an identity, by it. */
function elementsOf(model: Model, revision: number): ReadonlyMap<string, RenameCandidate> {
  const elements = new Map<string, RenameCandidate>();
  const add = (kind: ElementKind, within: string, address: string, identity: string): void => {
    elements.set(identity, { kind, within, address, identity, revision });
  };
  for (const declaration of model.declarations) {
    const address = declarationAddress(declaration);
    if (declaration.kind !== 'entity' && declaration.kind !== 'value') {
      const { kind, from, to, id } = declaration;
      add('relationship', `${kind} ${from} ${to}`, address, id);
      continue;
    }
    add(declaration.kind, '', address, declaration.id);
    for (const { name, id, lifeCycle } of declaration.attributes) {
      const attribute = attributeAddress(declaration.name, name);
      add('attribute', declaration.name, attribute, id);
      for (const transition of lifeCycle ?? [])
        add(
          'transition',
          attribute,
          transitionAddress(declaration.name, name, transition.name),
          transition.id,
        );
    }
  }
  return elements;
}
