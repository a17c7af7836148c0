import { becauseSet, valueOf, type Deriving } from '../context.js';
import type { Placed } from '../place/index.js';

/** Reports that lists are answered as a whole, however long they grow; said once for all of them. */
export function findUnbounded(deriving: Deriving, resources: readonly Placed[]): void {
  const lists = resources.filter(
    ({ kind }) => kind === 'collection' || kind === 'reverse' || kind === 'pairing',
  );
  const [first] = lists;
  if (first === undefined) return;
  const style = valueOf(deriving, 'pageStyle');
  if (style === 'cursor') findDeadEnd(deriving, first);
  if (style !== 'none') return;
  const which = lists.length === 1 ? `The list at ${first.path} is` : `${lists.length} lists are`;
  deriving.findings.push({
    id: 'list.unbounded',
    severity: 'doubtful',
    message: `${which} answered as a whole, however long it grows.`,
    about: first.id,
    reasons: [becauseSet(deriving, 'list.whole', ['pageStyle'])],
  });
}

/** A cursor is told in the body or by a link; where neither is, nobody gets beyond the first page. */
function findDeadEnd(deriving: Deriving, { id, path }: Placed): void {
  const isTold = valueOf(deriving, 'envelope') === 'object' || valueOf(deriving, 'links') !== 'none';
  if (isTold || !valueOf(deriving, 'mediaTypes').includes('json')) return;
  deriving.findings.push({
    id: 'list.dead-end',
    severity: 'doubtful',
    message: `Nothing in a bare list such as ${path} tells the cursor of its next page.`,
    about: id,
    reasons: [becauseSet(deriving, 'finding.dead-end', ['pageStyle', 'envelope', 'links'])],
  });
}
