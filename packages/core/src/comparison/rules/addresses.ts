import type { Operation } from '../../contract/index.js';
import { ENTRY, pathAt, standsFor } from '../align.js';
import { breaking, compatible, cosmetic, type About } from '../change.js';
import { scalarProblem } from '../values.js';
import type { Aligned, ContractChange, Pair } from '../types.js';

/** Operations that went and came, what their ids can be, and what they are called. */
export function* compareAddresses(aligned: Aligned): Generator<ContractChange> {
  yield* compareGone(aligned);
  for (const [resource, operations] of byResource(aligned.added)) {
    const where = pathAt(aligned.after, resource);
    const about: About = { where, resource, reasons: operations[0]?.reasons ?? [] };
    yield compatible(about, `${methods(operations)} ${where} ${isOrAre(operations)} new.`);
  }
  for (const pair of aligned.pairs) yield* compareIds(pair);
}

/** What a resource lost is told at once, with where it went: alike for all that went there. */
function* compareGone(aligned: Aligned): Generator<ContractChange> {
  const { before, after } = aligned;
  const now = new Map(after.contract.operations.map((one) => [`${one.verb} ${one.resource}`, one]));
  for (const [id, operations] of byResource(aligned.removed)) {
    const resource = before.index.resources.get(id);
    const where = pathAt(before, id);
    const about = {
      where,
      resource: resource === undefined ? ENTRY : standsFor(aligned, resource),
    };
    const isThere = (operation: Operation): boolean => now.has(`${operation.verb} ${id}`);
    const [moved, lost] = [operations.filter(isThere), operations.filter((one) => !isThere(one))];
    if (moved.length > 0) {
      const reasons = after.index.resources.get(id)?.reasons ?? [];
      const to = pathAt(after, id);
      const told = to === where ? methods(moved.flatMap((one) => now.get(`${one.verb} ${id}`) ?? [])) : to;
      const message = `${methods(moved)} ${where} ${isOrAre(moved)} ${told} now.`;
      yield breaking('sender', { ...about, reasons }, message);
    }
    if (lost.length > 0) {
      // Where it was left out, it was told why.
      const leftOut = after.index.resources.get(id)?.leftOut.find(({ verb }) => verb === lost[0]?.verb);
      const told = leftOut === undefined ? 'gone' : 'left out now';
      const message = `${methods(lost)} ${where} ${isOrAre(lost)} ${told}.`;
      yield breaking('sender', { ...about, reasons: (leftOut ?? lost[0])?.reasons ?? [] }, message);
    }
  }
}

function byResource(operations: readonly Operation[]): ReadonlyMap<string, readonly Operation[]> {
  const groups = new Map<string, Operation[]>();
  for (const operation of operations) {
    const group = groups.get(operation.resource);
    if (group === undefined) groups.set(operation.resource, [operation]);
    else group.push(operation);
  }
  return groups;
}

const methods = (operations: readonly Operation[]): string =>
  operations.map(({ method }) => method).join(', ');

const isOrAre = ({ length }: readonly Operation[]): string => (length === 1 ? 'is' : 'are');

function* compareIds({
  before,
  after,
  resourceBefore,
  resourceAfter,
  where,
}: Pair): Generator<ContractChange> {
  const about: About = { where, resource: resourceAfter.id, reasons: resourceAfter.reasons };
  for (const [at, segment] of resourceAfter.segments.entries()) {
    const was = resourceBefore.segments[at];
    if (segment.kind !== 'id' || was?.kind !== 'id') continue;
    const problem = scalarProblem(was.type, segment.type);
    if (problem !== null) yield breaking('sender', about, `${segment.parameter} of ${where} ${problem}.`);
    if (was.parameter !== segment.parameter)
      yield cosmetic(about, `${was.parameter} of ${where} is called ${segment.parameter} now.`);
  }
  if (before.id !== after.id)
    yield cosmetic({ ...about, reasons: after.reasons }, `${before.id} is called ${after.id} now.`);
}
