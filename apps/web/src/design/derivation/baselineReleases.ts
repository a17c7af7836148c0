import {
  baselineRelease,
  breakingFindings,
  changesSince,
  type ChangeSinceRelease,
} from '@isomeros/core/comparison';
import { readContract, type Contract, type Finding } from '@isomeros/core/contract';

/** A release with its contract as JSON, as workers are given it. */
export interface BaselineRelease {
  readonly label: string;
  readonly arrangement: string;
  readonly version: string;
  readonly json: string;
}

/** The releases of one design, in the order they were made. */
export interface DesignReleases {
  readonly design: string;
  readonly releases: readonly BaselineRelease[];
}

/** The releases a worker compares with; each is read once, when it is first needed. */
export class BaselineReleases {
  private loaded: DesignReleases = { design: '', releases: [] };
  private readonly read = new Map<BaselineRelease, Contract>();

  load(compared: DesignReleases): void {
    this.loaded = compared;
    this.read.clear();
  }

  /** A finding for everything in a contract that breaks the release it has to go on serving. */
  broken(design: string, arrangement: string, contract: Contract): readonly Finding[] {
    if (design !== this.loaded.design) return [];
    const release = baselineRelease(this.loaded.releases, arrangement, contract.version);
    if (release === undefined) return [];
    return breakingFindings({ label: release.label, contract: this.contractOf(release) }, contract);
  }

  /** Every change since a release; `null` where it is not compared. */
  changesSince(design: string, label: string, contract: Contract): readonly ChangeSinceRelease[] | null {
    const release = this.loaded.releases.find((one) => one.label === label);
    if (design !== this.loaded.design || release === undefined) return null;
    return changesSince({ label, contract: this.contractOf(release) }, contract);
  }

  private contractOf(release: BaselineRelease): Contract {
    let contract = this.read.get(release);
    if (contract === undefined) {
      contract = readContract(release.json);
      this.read.set(release, contract);
    }
    return contract;
  }
}
