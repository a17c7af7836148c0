import { severalIn, type Resource } from '../../contract/index.js';
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
    const [was, is] = [relationsOf(resourceBefore), relationsOf(resourceAfter)];
    for (const [relation, { reasons }] of was) {
      if (!is.has(relation))
        yield breaking('reader', { ...about, reasons }, `${where} does not link ${relation} any more.`);
    }
    const [wereSeveral, areSeveral] = [severalIn(resourceBefore.links), severalIn(resourceAfter.links)];
    for (const [relation, { reasons }] of is) {
      if (was.has(relation) && wereSeveral.has(relation) !== areSeveral.has(relation))
        yield breaking(
          'reader',
          { ...about, reasons },
          `${relation} of ${where} is ${areSeveral.has(relation) ? 'an array of links' : 'one link'} now.`,
        );
    }
    for (const [relation, { reasons }] of is) {
      if (!was.has(relation)) yield compatible({ ...about, reasons }, `${where} links ${relation}.`);
    }
  }
}

const relationsOf = ({ links }: Resource): ReadonlyMap<string, Resource['links'][number]> =>
  new Map(links.map((link) => [link.relation, link]));
