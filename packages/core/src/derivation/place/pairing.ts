import { backSubject, pairingPlaces, type PlaceOf } from '../../arrangement/index.js';
import type { Reason, RuleId, Via } from '../../contract/index.js';
import { keyOf, pascalCase, roleOf, singular, type Entity, type PairsWith } from '../../model/index.js';
import { because, becausePlaced, entityNamed, placed, type Deriving } from '../context.js';
import { listWord, namedList } from '../names/words.js';
import { idSegment, namedItem, type PathTree, type Placed } from './tree.js';

/** Where a pairing is kept; without a way back it has no far side. */
function pairingPlace(deriving: Deriving, pairs: PairsWith): PlaceOf<'pairing'> {
  const place = placed(deriving, 'pairing', pairs.id);
  return pairingPlaces(pairs).includes(place) ? place : 'near';
}

const why = (deriving: Deriving, rule: RuleId, pairs: PairsWith): Reason =>
  becausePlaced(deriving, rule, 'pairing', pairs.id, pairs);

/** `A pairs with many B as r`: below each A, a list of the Bs it is paired with, and each pair. */
export function placePairing(deriving: Deriving, tree: PathTree, above: Placed, pairs: PairsWith): void {
  const place = pairingPlace(deriving, pairs);
  if (place === 'far' || place === 'hidden') return;
  const reason = why(deriving, 'place.pairing', pairs);
  placeSide(deriving, tree, above, pairs, entityNamed(deriving, pairs.to), 'paired', roleOf(pairs), reason);
}

/** `back as s`: below each B, a list of the As that are paired with it, and each pair where it is kept there. */
export function placePairingFar(deriving: Deriving, tree: PathTree, above: Placed, pairs: PairsWith): void {
  const place = pairingPlace(deriving, pairs);
  if (pairs.back === null || place === 'near' || place === 'hidden') return;
  const reason = why(deriving, 'place.pairing-far', pairs);
  placeSide(
    deriving,
    tree,
    above,
    pairs,
    entityNamed(deriving, pairs.from),
    'paired-back',
    pairs.back,
    reason,
  );
}

/** `back as s` of a pairing that is kept from the near side: below each B, a list of the As. */
export function placePairingBack(deriving: Deriving, tree: PathTree, above: Placed, pairs: PairsWith): void {
  const subject = backSubject(pairs.id);
  if (pairs.back === null || pairingPlace(deriving, pairs) !== 'near') return;
  if (placed(deriving, 'back', subject) === 'off') return;
  tree.add({
    id: subject,
    kind: 'pairing',
    canonical: false,
    segments: [...above.segments, listWord(deriving, pairs.back, subject)],
    word: subject,
    parent: above.id,
    entity: pairs.from,
    via: { relationship: pairs.id, direction: 'paired-back' },
    reasons: [
      becausePlaced(deriving, 'place.pairing-back', 'back', subject, pairs),
      ...namedList(deriving, subject, pairs),
    ],
  });
}

function placeSide(
  deriving: Deriving,
  tree: PathTree,
  above: Placed,
  pairs: PairsWith,
  target: Entity,
  direction: Via['direction'],
  role: string,
  reason: Reason,
): void {
  const key = keyOf(target).attribute;
  if (key.key?.within != null) {
    deriving.findings.push({
      id: 'key.scoped-reference',
      severity: 'error',
      message: `${above.entity ?? ''} cannot pair with ${target.name}: its key ${key.name} is unique only under its ${key.key.within}.`,
      about: pairs.id,
      reasons: [because('place.scoped', key), reason],
    });
    return;
  }
  const id = direction === 'paired' ? pairs.id : backSubject(pairs.id);
  const via: Via = { relationship: pairs.id, direction };
  const segments = [...above.segments, listWord(deriving, role, id)];
  const list = tree.add({
    id,
    kind: 'pairing',
    segments,
    parent: above.id,
    entity: target.name,
    via,
    word: id,
    reasons: [reason, ...namedList(deriving, id, pairs)],
  });
  if (list === null) return;
  tree.add({
    id: `${id}/pair`,
    kind: 'pair',
    segments: [...segments, pairSegment(deriving, list, target, role)],
    parent: list.id,
    entity: target.name,
    via,
    reasons: [reason, namedItem(deriving, target)],
  });
}

/** Where the same entity stands further up, the parameter is named by the role instead. */
function pairSegment(
  deriving: Deriving,
  list: Placed,
  target: Entity,
  role: string,
): Placed['segments'][number] {
  const taken = list.segments.some((segment) => segment.kind === 'id' && segment.entity === target.name);
  if (!taken) return idSegment(deriving, target);
  const byRole = pascalCase(singular(role));
  return idSegment(deriving, target, byRole === target.name ? `Other${byRole}` : byRole);
}
