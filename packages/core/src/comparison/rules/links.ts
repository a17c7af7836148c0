import { LINK_PLACES, type LinkPlace } from '../../arrangement/index.js';
import { isCarried, severalIn, type Contract, type Link, type Resource } from '../../contract/index.js';
import { pathAt } from '../align.js';
import { breaking, compatible, type About } from '../change.js';
import type { Aligned, ContractChange } from '../types.js';

/** The links that resources offer at the same address. */
export function* compareLinks({ pairs, before, after }: Aligned): Generator<ContractChange> {
  if (before.contract.representation.links === 'none') return;
  const met = new Set<Resource>();
  for (const { resourceBefore, resourceAfter } of pairs) {
    if (met.has(resourceAfter)) continue;
    met.add(resourceAfter);
    const where = pathAt(after, resourceAfter.id);
    const about: About = { where, resource: resourceAfter.id, reasons: resourceAfter.reasons };
    const [was, is] = [byRelation(resourceBefore), byRelation(resourceAfter)];
    for (const [relation, [{ reasons }]] of was) {
      if (!is.has(relation))
        yield breaking('follower', { ...about, reasons }, `${where} does not link ${relation} any more.`);
    }
    const [wereSeveral, areSeveral] = [severalIn(resourceBefore.links), severalIn(resourceAfter.links)];
    for (const [relation, links] of is) {
      const earlier = was.get(relation);
      const because: About = { ...about, reasons: links[0].reasons };
      if (earlier === undefined) {
        yield compatible(because, `${where} links ${relation}.`);
        continue;
      }
      const of = `${relation} of ${where}`;
      if (wereSeveral.has(relation) !== areSeveral.has(relation))
        yield breaking(
          'follower',
          because,
          `${of} is ${areSeveral.has(relation) ? 'an array of links' : 'one link'} now.`,
        );
      if (earlier.some(isTemplate) !== links.some(isTemplate))
        yield breaking(
          'follower',
          because,
          `${of} is ${links.some(isTemplate) ? 'a URI template now' : 'no URI template any more'}.`,
        );
      yield* comparePlaces(because, of, [before.contract, earlier], [after.contract, links]);
    }
  }
}

type Links = readonly [Link, ...Link[]];

const CARRIED: Readonly<Record<LinkPlace, string>> = {
  items: 'by the answer itself',
  lists: 'by records in lists',
  header: 'in a header',
};

/** Where links of a relation are carried. What holds for all links of an arrangement is told once, of all of them. */
function* comparePlaces(
  about: About,
  of: string,
  [before, were]: readonly [Contract, Links],
  [after, are]: readonly [Contract, Links],
): Generator<ContractChange> {
  if ([...were, ...are].every((link) => link.in === null)) return;
  for (const place of LINK_PLACES) {
    const at = ({ representation }: Contract, links: Links): boolean =>
      links.some((link) => isCarried(link, place, representation.memberLinks));
    const [was, is] = [at(before, were), at(after, are)];
    if (was && !is) yield breaking('follower', about, `${of} is not carried ${CARRIED[place]} any more.`);
    if (is && !was) yield compatible(about, `${of} is carried ${CARRIED[place]}.`);
  }
}

/** Whether a client has to fill something in before it follows a link. */
const isTemplate = ({ target }: Link): boolean =>
  target.kind === 'template' ||
  (target.kind === 'resource' && target.query !== undefined) ||
  (target.kind === 'operation' && target.open.path.length + target.open.query.length > 0);

function byRelation({ links }: Resource): ReadonlyMap<string, Links> {
  const found = new Map<string, [Link, ...Link[]]>();
  for (const link of links) {
    const known = found.get(link.relation);
    if (known === undefined) found.set(link.relation, [link]);
    else known.push(link);
  }
  return found;
}
