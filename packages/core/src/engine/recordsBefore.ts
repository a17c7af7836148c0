import type { Dataset, RowChange } from './dataset.js';
import { Draft } from './draft.js';
import type { KeptChange } from './image.js';

/** The records as they are but for what some changes did, as far as that can still be told. */
export function recordsBefore(dataset: Dataset, changes: readonly KeptChange[]): Draft {
  const before = new Draft(dataset);
  before.apply([...changes].reverse().flatMap((change) => takenBack(dataset, change)));
  return before;
}

/** What undoes a change, where the record is still there to be undone. */
function takenBack(dataset: Dataset, { before, after }: KeptChange): readonly RowChange[] {
  const rid = (after ?? before)?.row.rid ?? 0;
  const present = dataset.get(rid);
  if (before === null) return present === undefined ? [] : [{ kind: 'remove', before: present }];
  return present === undefined
    ? [{ kind: 'add', after: before.row }]
    : [{ kind: 'update', before: present, after: before.row }];
}
