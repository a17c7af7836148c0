import type { CitedDecision, Contract, Finding } from '../contract/index.js';
import { causesBetween } from './causes.js';
import { compare } from './compare.js';
import { PARTIES, type ContractChange } from './types.js';

/** A contract frozen under a label. */
export interface ReleasedContract {
  readonly label: string;
  /** The name of the arrangement it was frozen from. */
  readonly arrangement: string;
  readonly contract: Contract;
}

/**
 * The release that a contract has to go on serving: the newest of its arrangement under its version. Another
 * version stands beside what was released and breaks none of it. `releases` are in the order they were made.
 */
export function baselineRelease<Release extends Pick<ReleasedContract, 'arrangement'> & { version: string }>(
  releases: readonly Release[],
  arrangement: string,
  version: string,
): Release | undefined {
  return releases.findLast((release) => release.arrangement === arrangement && release.version === version);
}

/** A change since a release, with the decision it comes from; `null` where the model itself changed, or nobody can tell. */
export interface ChangeSinceRelease extends ContractChange {
  readonly cause: CitedDecision | null;
}

/** Every change from a release to a contract. */
export function changesSince(
  { label, contract: released }: Pick<ReleasedContract, 'label' | 'contract'>,
  contract: Contract,
): readonly ChangeSinceRelease[] {
  const causeOf = causesBetween(released, contract);
  const { changes } = compare({ kind: 'release', label, contract: released }, { kind: 'draft', contract });
  return changes.map((change) => ({ ...change, cause: causeOf(change.reasons) }));
}

/** A finding for each change that breaks a release. */
export function breakingFindings(
  release: Pick<ReleasedContract, 'label' | 'contract'>,
  contract: Contract,
): readonly Finding[] {
  const { label } = release;
  return changesSince(release, contract)
    .filter(({ compatibility }) => compatibility === 'breaking')
    .map(({ message, resource, reasons, affects, cause }) => ({
      id: 'release.broken',
      severity: 'breaking',
      message: `Breaks ${label} for ${affects === null ? '' : PARTIES[affects]}: ${message}`,
      about: resource,
      reasons: [{ rule: 'finding.breaks', because: [{ kind: 'release', label }] }, ...reasons],
      ...(cause === null ? {} : { cause }),
    }));
}
