import { becauseSet, valueOf, type Deriving } from '../context.js';
import type { Placed } from '../place/index.js';

/** Reports that lists are answered as a whole, however long they grow; said once for all of them. */
export function findUnbounded(deriving: Deriving, resources: readonly Placed[]): void {
  const lists = resources.filter(
    ({ kind }) => kind === 'collection' || kind === 'reverse' || kind === 'pairing',
  );
  const [first] = lists;
  if (valueOf(deriving, 'pageStyle') !== 'none' || first === undefined) return;
  const which = lists.length === 1 ? `The list at ${first.path} is` : `${lists.length} lists are`;
  deriving.findings.push({
    id: 'list.unbounded',
    severity: 'doubtful',
    message: `${which} answered as a whole, however long it grows.`,
    about: first.id,
    reasons: [becauseSet(deriving, 'list.whole', ['pageStyle'])],
  });
}
