import { breakingFindings, compareContracts, releaseHeld, type Change } from '@isomeros/core/comparison';
import { readContract, type Contract, type Finding } from '@isomeros/core/contract';

/** A release with its contract as JSON, as workers are given it. */
export interface HeldRelease {
  readonly label: string;
  readonly arrangement: string;
  readonly version: string;
  readonly json: string;
}

/** The releases of one design, in the order they were made. */
export interface DesignReleases {
  readonly design: string;
  readonly releases: readonly HeldRelease[];
}

/** The releases a worker compares with; each is read once, when it is first needed. */
export class HeldReleases {
  private held: DesignReleases = { design: '', releases: [] };
  private readonly read = new Map<HeldRelease, Contract>();

  hold(held: DesignReleases): void {
    this.held = held;
    this.read.clear();
  }

  /** A finding for everything in a contract that breaks the release it has to go on serving. */
  broken(design: string, arrangement: string, contract: Contract): readonly Finding[] {
    if (design !== this.held.design) return [];
    const release = releaseHeld(this.held.releases, arrangement, contract.version);
    if (release === undefined) return [];
    return breakingFindings({ label: release.label, contract: this.contractOf(release) }, contract);
  }

  /** Every change since a release; `null` where it is not held. */
  changesSince(design: string, label: string, contract: Contract): readonly Change[] | null {
    const release = this.held.releases.find((one) => one.label === label);
    if (design !== this.held.design || release === undefined) return null;
    return compareContracts(this.contractOf(release), contract);
  }

  private contractOf(release: HeldRelease): Contract {
    let contract = this.read.get(release);
    if (contract === undefined) {
      contract = readContract(release.json);
      this.read.set(release, contract);
    }
    return contract;
  }
}
