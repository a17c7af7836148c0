import { becauseSet, valueOf, type DerivationContext } from '../context.js';
import type { PlacedResource } from '../place/index.js';

/** Reports that lists are answered as a whole, however long they grow; said once for all of them. */
export function findUnbounded(context: DerivationContext, resources: readonly PlacedResource[]): void {
  const lists = resources.filter(
    ({ kind }) => kind === 'collection' || kind === 'reverse' || kind === 'pairing',
  );
  const [first] = lists;
  if (first === undefined) return;
  const style = valueOf(context, 'pageStyle');
  if (style === 'cursor') findDeadEnd(context, first);
  if (style !== 'none') return;
  const which = lists.length === 1 ? `The list at ${first.path} is` : `${lists.length} lists are`;
  context.findings.push({
    id: 'list.unbounded',
    severity: 'doubtful',
    message: `${which} answered as a whole, however long it grows.`,
    about: first.id,
    reasons: [becauseSet(context, 'list.whole', ['pageStyle'])],
  });
}

/** A cursor is told in the body or by a link; where neither is, nobody gets beyond the first page. */
function findDeadEnd(context: DerivationContext, { id, path }: PlacedResource): void {
  const isTold = valueOf(context, 'envelope') === 'object' || valueOf(context, 'links') !== 'none';
  if (isTold || !valueOf(context, 'mediaTypes').includes('json')) return;
  context.findings.push({
    id: 'list.dead-end',
    severity: 'doubtful',
    message: `Nothing in a bare list such as ${path} tells the cursor of its next page.`,
    about: id,
    reasons: [becauseSet(context, 'finding.dead-end', ['pageStyle', 'envelope', 'links'])],
  });
}
