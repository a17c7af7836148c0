import { backSubject, pairingPlacements, type PlacementFor } from '../../arrangement/index.js';
import type { Reason, RuleId, Via } from '../../contract/index.js';
import { keyOf, pascalCase, roleOf, singular, type Entity, type PairsWith } from '../../model/index.js';
import { because, becausePlaced, entityNamed, placementOf, type DerivationContext } from '../context.js';
import { listWord, namedList } from '../names/words.js';
import { namedParameter } from '../names/parameters.js';
import { idSegment, type PathTree, type PlacedResource } from './tree.js';

/** Where a pairing is kept; without a way back it has no far side. */
function pairingPlace(context: DerivationContext, pairs: PairsWith): PlacementFor<'pairing'> {
  const place = placementOf(context, 'pairing', pairs.id);
  return pairingPlacements(pairs).includes(place) ? place : 'near';
}

const why = (context: DerivationContext, rule: RuleId, pairs: PairsWith): Reason =>
  becausePlaced(context, rule, 'pairing', pairs.id, pairs);

/** `A pairs with many B as r`: below each A, a list of the Bs it is paired with, and each pair. */
export function placePairing(
  context: DerivationContext,
  tree: PathTree,
  above: PlacedResource,
  pairs: PairsWith,
): void {
  const place = pairingPlace(context, pairs);
  if (place === 'far' || place === 'hidden') return;
  const reason = why(context, 'place.pairing', pairs);
  placeSide(context, tree, above, pairs, entityNamed(context, pairs.to), 'paired', roleOf(pairs), reason);
}

/** `back as s`: below each B, a list of the As that are paired with it, and each pair where it is kept there. */
export function placePairingFar(
  context: DerivationContext,
  tree: PathTree,
  above: PlacedResource,
  pairs: PairsWith,
): void {
  const place = pairingPlace(context, pairs);
  if (pairs.back === null || place === 'near' || place === 'hidden') return;
  const reason = why(context, 'place.pairing-far', pairs);
  placeSide(context, tree, above, pairs, entityNamed(context, pairs.from), 'paired-back', pairs.back, reason);
}

/** `back as s` of a pairing that is kept from the near side: below each B, a list of the As. */
export function placePairingBack(
  context: DerivationContext,
  tree: PathTree,
  above: PlacedResource,
  pairs: PairsWith,
): void {
  const subject = backSubject(pairs.id);
  if (pairs.back === null || pairingPlace(context, pairs) !== 'near') return;
  if (placementOf(context, 'back', subject) === 'off') return;
  tree.add({
    id: subject,
    kind: 'pairing',
    canonical: false,
    segments: [...above.segments, listWord(context, pairs.back, subject)],
    word: subject,
    parent: above.id,
    entity: pairs.from,
    via: { relationship: pairs.id, direction: 'paired-back' },
    reasons: [
      becausePlaced(context, 'place.pairing-back', 'back', subject, pairs),
      ...namedList(context, subject, pairs),
    ],
  });
}

function placeSide(
  context: DerivationContext,
  tree: PathTree,
  above: PlacedResource,
  pairs: PairsWith,
  target: Entity,
  direction: Via['direction'],
  role: string,
  reason: Reason,
): void {
  const key = keyOf(target).attribute;
  if (key.key?.within != null) {
    context.findings.push({
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
  const segments = [...above.segments, listWord(context, role, id)];
  const list = tree.add({
    id,
    kind: 'pairing',
    segments,
    parent: above.id,
    entity: target.name,
    via,
    word: id,
    reasons: [reason, ...namedList(context, id, pairs)],
  });
  if (list === null) return;
  tree.add({
    id: `${id}/pair`,
    kind: 'pair',
    segments: [...segments, pairSegment(context, list, target, role)],
    parent: list.id,
    entity: target.name,
    via,
    reasons: [reason, namedParameter(context, target)],
  });
}

/** Where the same entity stands further up, the parameter is named by the role instead. */
function pairSegment(
  context: DerivationContext,
  list: PlacedResource,
  target: Entity,
  role: string,
): PlacedResource['segments'][number] {
  const taken = list.segments.some((segment) => segment.kind === 'id' && segment.entity === target.name);
  if (!taken) return idSegment(context, target);
  const byRole = pascalCase(singular(role));
  return idSegment(context, target, byRole === target.name ? `Other${byRole}` : byRole);
}
