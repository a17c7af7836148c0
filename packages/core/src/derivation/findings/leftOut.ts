import type { Leavable } from '../../arrangement/index.js';
import type { Finding, FindingId, QuickFix, Verb } from '../../contract/index.js';
import { entryOf, memoize } from '../../model/index.js';
import { becauseSetAt, valueOf, type DerivationContext } from '../context.js';
import type { Offers } from '../operations/offers.js';
import type { PlacedResource } from '../place/index.js';

/** Reports what is missed where an operation is left out. */
export function findLeftOut(context: DerivationContext, offers: Offers): void {
  for (const resource of offers.resources) {
    if (offers.leftOut(resource.id).length === 0) continue;
    const found = findingOf(context, offers, resource);
    if (found !== null) context.findings.push(found);
  }
}

function findingOf(context: DerivationContext, offers: Offers, resource: PlacedResource): Finding | null {
  const leaves = (verb: Verb): boolean => offers.leftOut(resource.id).some((one) => one.verb === verb);
  const { kind, canonical, entity, path } = resource;
  const report = (id: FindingId, verb: Verb & Leavable, message: string): Finding => ({
    id,
    severity: 'doubtful',
    message,
    about: resource.id,
    reasons: [becauseSetAt(context, 'finding.left-out', ['leftOut'], { resource: resource.id })],
    quickFixes: [offerAgain(context, resource, verb)],
  });
  if (kind === 'action' && leaves('transition') && isWritten(offers, entity))
    return report('transition.left-out', 'transition', `Nobody can carry out ${path}: it is left out.`);
  if (entity === null || !canonical) return null;
  const requiring = (requiringOf(context).get(entity) ?? []).find((name) => isCreated(offers, name));
  if (kind === 'collection' && leaves('create') && requiring !== undefined)
    return report(
      'create.left-out',
      'create',
      `Each ${requiring} needs a ${entity}, and nobody can create one: it is left out at ${path}.`,
    );
  if (kind === 'collection' && leaves('list'))
    return report('list.left-out', 'list', `What is in ${path} cannot be listed: it is left out.`);
  const isReported = valueOf(context, 'neverRemoved') === 'reported';
  if (kind === 'item' && isReported && leaves('remove') && isCreated(offers, entity))
    return report('remove.left-out', 'remove', `A ${entity} can be created and never be removed.`);
  return null;
}

/** What is offered where records of an entity have their address or are made, by its name. */
const offeredFor = memoize((offers: Offers): ReadonlyMap<string, ReadonlySet<Verb>> => {
  const verbs = new Map<string, Set<Verb>>();
  for (const { id, entity, canonical } of offers.resources)
    if (canonical && entity !== null)
      for (const verb of offers.offered(id)) entryOf(verbs, entity, () => new Set<Verb>()).add(verb);
  return verbs;
});

const isOfferedFor = (offers: Offers, entity: string | null, verbs: readonly Verb[]): boolean =>
  verbs.some(
    (verb) =>
      offeredFor(offers)
        .get(entity ?? '')
        ?.has(verb) === true,
  );

const isCreated = (offers: Offers, entity: string): boolean => isOfferedFor(offers, entity, ['create']);

/** Of what nobody writes nobody misses a transition. */
const isWritten = (offers: Offers, entity: string | null): boolean =>
  isOfferedFor(offers, entity, ['create', 'replace', 'change']);

/** The names of those that cannot be without a record of an entity, by its name. */
const requiringOf = memoize((context: DerivationContext): ReadonlyMap<string, readonly string[]> => {
  const requiring = new Map<string, string[]>();
  for (const refers of context.index.relationshipById.values())
    if (refers.kind === 'refers' && refers.cardinality === 'one')
      entryOf(requiring, refers.to, () => []).push(refers.from);
  return requiring;
});

/** What is left out of a resource without one of it. */
function offerAgain(context: DerivationContext, { id, path }: PlacedResource, verb: Leavable): QuickFix {
  const value = valueOf(context, 'leftOut', { resource: id }).filter((one) => one !== verb);
  return {
    title: `Offer ${verb} at ${path}`,
    answer: { kind: 'setting', name: 'leftOut', value, resource: id },
  };
}
