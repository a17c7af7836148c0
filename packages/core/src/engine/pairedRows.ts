import type { Via } from '../contract/index.js';
import { pairFrom, pairTo, type PairsWith, type Row } from '../model/index.js';
import type { RecordView } from './dataset.js';
import { storages, type OfModel } from './service.js';

/** The records on the other side of the pairs of one record. */
export function pairedRows(
  service: OfModel,
  view: RecordView,
  pairs: PairsWith,
  direction: Via['direction'] | undefined,
  above: Row,
): readonly Row[] {
  const storage = storages(service).byId.get(pairs.id);
  if (storage === undefined) return [];
  const [own, other] =
    direction === 'paired-back' ? [pairTo(pairs), pairFrom(pairs)] : [pairFrom(pairs), pairTo(pairs)];
  return view.pointingAt(storage, own, above.rid).flatMap((pair) => {
    const rid = pair.values[other];
    return typeof rid === 'number' ? (view.get(rid) ?? []) : [];
  });
}
