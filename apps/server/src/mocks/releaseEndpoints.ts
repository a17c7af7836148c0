import type { ReleaseEnd } from '@isomeros/api';
import { canShareRecords, violationsIn, withDefaults } from '@isomeros/core/engine';
import { mapInSteps, type Model, type Row, type Steps } from '@isomeros/core/model';
import type { Derivation } from '../compute/program.js';
import type { ServedRelease } from '../designs/releases.service.js';

/** The records of a dataset as they can be served under a release too; `null` where they cannot. */
function* sharedRows(
  model: Model,
  rows: readonly Row[],
  release: ServedRelease,
): Steps<readonly Row[] | null> {
  const other = release.derivation.model;
  if (!canShareRecords(model, other)) return null;
  const filled = yield* mapInSteps('checking', rows, (row) => withDefaults(other, row));
  const violations = yield* violationsIn(other, new Map(filled.map((row) => [row.rid, row])));
  return violations.length === 0 ? filled : null;
}

/** Releases that can be served from the same records, which may get values for that, and those that cannot. */
export function* divideReleases(
  model: Model,
  rows: readonly Row[],
  releases: readonly ServedRelease[],
): Steps<{
  readonly together: readonly ServedRelease[];
  readonly apart: readonly ServedRelease[];
  readonly shared: readonly Row[];
}> {
  const [together, apart]: [ServedRelease[], ServedRelease[]] = [[], []];
  let shared = rows;
  for (const release of releases) {
    const fitting = yield* sharedRows(model, shared, release);
    shared = fitting ?? shared;
    (fitting === null ? apart : together).push(release);
  }
  return { together, apart, shared };
}

/** What a mock serves, arrangements first: each has its own contract, all have the model of the first one. */
export const allDerivations = (
  arrangements: readonly Derivation[],
  releases: readonly ServedRelease[],
): readonly Derivation[] => [...arrangements, ...releases.map(({ derivation }) => derivation)];

/** What a release says about its end, once it is told where its successor is served. */
export const deprecationOf = (
  end: ReleaseEnd | null,
  addressOf: (successor: NonNullable<ReleaseEnd['successor']>) => string | null,
): { deprecatedAt: number; sunsetAt: number | null; successor: string | null } | null =>
  end === null
    ? null
    : {
        deprecatedAt: Date.parse(end.deprecatedAt),
        sunsetAt: end.sunsetAt === null ? null : Date.parse(end.sunsetAt),
        successor: end.successor === null ? null : addressOf(end.successor),
      };
