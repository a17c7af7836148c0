import type { ReleaseEnd } from '@isomeros/api';
import { canShareRecords, findViolations, withDefaults } from '@isomeros/core/engine';
import type { Model, Row } from '@isomeros/core/model';
import type { Derivation } from '../compute/program.js';
import type { ServedRelease } from '../designs/releases.service.js';

/** The records of a dataset as they can be served under a release too; `null` where they cannot. */
export function sharedRows(
  model: Model,
  rows: readonly Row[],
  release: ServedRelease,
): readonly Row[] | null {
  const other = release.derivation.model;
  if (!canShareRecords(model, other)) return null;
  const filled = rows.map((row) => withDefaults(other, row));
  return findViolations(other, filled).length === 0 ? filled : null;
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
