import { addressOf, ENTRY, standsFor } from '../align.js';
import { breaking, compatible, cosmetic, type About } from '../change.js';
import { scalarProblem } from '../values.js';
import type { Aligned, Change, Pair } from '../types.js';

/** Operations that went and came, what their ids can be, and what they are called. */
export function* compareAddresses(aligned: Aligned): Generator<Change> {
  const { before, after } = aligned;
  const now = new Map(after.contract.operations.map((one) => [`${one.verb} ${one.resource}`, one]));
  for (const operation of aligned.gone) {
    const where = addressOf(before, operation);
    const moved = now.get(`${operation.verb} ${operation.resource}`);
    const resource = before.index.resources.get(operation.resource);
    const about: About = {
      where,
      resource: resource === undefined ? ENTRY : standsFor(aligned, resource),
      reasons: moved?.reasons ?? operation.reasons,
    };
    const is = moved === undefined ? '' : `; it is ${addressOf(after, moved)} now`;
    yield breaking('sender', about, `${where} is gone${is}.`);
  }
  for (const operation of aligned.come) {
    const where = addressOf(after, operation);
    const about: About = { where, resource: operation.resource, reasons: operation.reasons };
    yield compatible(about, `${where} is new.`);
  }
  for (const pair of aligned.pairs) yield* compareIds(pair);
}

function* compareIds({ before, after, resourceBefore, resourceAfter, where }: Pair): Generator<Change> {
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
