import { keyOf, pascalCase, roleOf, singular, type Entity, type PairsWith } from '../../model/index.js';
import { because, entityNamed, type Deriving } from '../context.js';
import { idSegment, literal, namedItem, namedPath, type PathTree, type Placed } from './tree.js';

/** `A pairs with many B as r`: below each A, a list of the Bs it is paired with, and each pair. */
export function placePairing(deriving: Deriving, tree: PathTree, above: Placed, pairs: PairsWith): void {
  const target = entityNamed(deriving, pairs.to);
  const key = keyOf(target).attribute;
  if (key.key?.within != null) {
    deriving.findings.push({
      id: 'key.scoped-reference',
      severity: 'error',
      message: `${pairs.from} cannot pair with ${target.name}: its key ${key.name} is unique only under its ${key.key.within}.`,
      about: pairs.id,
      reasons: [because('place.scoped', key), because('place.pairing', pairs)],
    });
    return;
  }
  const via = { relationship: pairs.id, direction: 'paired' } as const;
  const why = because('place.pairing', pairs);
  const segments = [...above.segments, literal(deriving, roleOf(pairs))];
  const list = tree.add({
    id: pairs.id,
    kind: 'pairing',
    segments,
    parent: above.id,
    entity: target.name,
    via,
    reasons: [why, ...namedPath(deriving, pairs)],
  });
  if (list === null) return;
  tree.add({
    id: `${pairs.id}/pair`,
    kind: 'pair',
    segments: [...segments, pairSegment(list, target, pairs)],
    parent: list.id,
    entity: target.name,
    via,
    reasons: [why, ...namedItem(target)],
  });
}

/** Where the same entity stands further up, the parameter is named by the role instead. */
function pairSegment(list: Placed, target: Entity, pairs: PairsWith): Placed['segments'][number] {
  const taken = list.segments.some((segment) => segment.kind === 'id' && segment.entity === target.name);
  if (!taken) return idSegment(target);
  const byRole = pascalCase(singular(roleOf(pairs)));
  return idSegment(target, byRole === target.name ? `Other${byRole}` : byRole);
}

/** `back as s`: below each B, a list of the As that are paired with it. */
export function placePairingBack(deriving: Deriving, tree: PathTree, above: Placed, pairs: PairsWith): void {
  if (pairs.back === null) return;
  tree.add({
    id: `${pairs.id}/back`,
    kind: 'pairing',
    segments: [...above.segments, literal(deriving, pairs.back)],
    parent: above.id,
    entity: pairs.from,
    via: { relationship: pairs.id, direction: 'paired-back' },
    reasons: [because('place.pairing-back', pairs), ...namedPath(deriving, pairs)],
  });
}
