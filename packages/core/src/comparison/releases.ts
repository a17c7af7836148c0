import type { Contract, Finding } from '../contract/index.js';
import { causesBetween } from './causes.js';
import { compare } from './compare.js';

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

/** A finding for each change that breaks a release. */
export function breakingFindings(
  { label, contract: released }: Pick<ReleasedContract, 'label' | 'contract'>,
  contract: Contract,
): readonly Finding[] {
  const causeOf = causesBetween(released, contract);
  return compare({ kind: 'release', label, contract: released }, { kind: 'draft', contract })
    .changes.filter(({ compatibility }) => compatibility === 'breaking')
    .map(({ message, resource, reasons, affects }) => {
      const cause = causeOf(reasons);
      return {
        id: 'release.broken',
        severity: 'breaking',
        message: `Breaks ${label} for ${affects === 'sender' ? 'senders' : 'readers'}: ${message}`,
        about: resource,
        reasons: [{ rule: 'finding.breaks', because: [{ kind: 'release', label }] }, ...reasons],
        ...(cause === null ? {} : { cause }),
      };
    });
}
