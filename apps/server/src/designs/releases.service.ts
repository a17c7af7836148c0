import { Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { compareContracts, type Change } from '@isomeros/core/comparison';
import type { Contract } from '@isomeros/core/contract';
import { openApiDocument } from '@isomeros/core/publication';
import type { DataSource, EntityManager } from 'typeorm';
import { packJson, unpackJson, unpackText } from '../database/packed.js';
import { ReleaseRow } from '../database/tables.js';
import { ApiProblem } from '../http/problem.js';
import { DesignsService } from './designs.service.js';

/** More of them a design does not keep. */
const MOST_RELEASES = 200;

/** A release as a list shows it. */
export interface ReleaseView {
  readonly label: string;
  readonly arrangement: string;
  readonly version: string;
  readonly revision: number;
  readonly operations: number;
  readonly madeAt: string;
}

/** Freezes contracts under a label, and tells what has changed since. */
@Injectable()
export class ReleasesService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly designs: DesignsService,
  ) {}

  /** In the order they were made. */
  async list(design: string): Promise<readonly ReleaseView[]> {
    await this.designs.row(design);
    const rows = await this.database.getRepository(ReleaseRow).find({
      select: {
        designId: true,
        label: true,
        number: true,
        arrangement: true,
        version: true,
        revision: true,
        operations: true,
        madeAt: true,
      },
      where: { designId: design },
      order: { number: 'ASC' },
    });
    return rows.map(viewOf);
  }

  /** Freezes what the last sound text implies in an arrangement. A contract with an error is not released. */
  async make(design: string, label: string, arrangement: string): Promise<ReleaseView> {
    return this.database.transaction(async (manager) => {
      // Locks the design, so that two releases made at once get numbers of their own.
      await this.designs.row(design, manager);
      const { contract, revision } = await this.designs.derivation(design, arrangement);
      const wrong = contract.findings.filter(({ severity }) => severity === 'error');
      if (wrong.length > 0) {
        const count = `${wrong.length} ${wrong.length === 1 ? 'error' : 'errors'}`;
        throw new ApiProblem('conflict', `The contract has ${count}, the first: ${wrong[0]?.message ?? ''}`);
      }
      const row: ReleaseRow = {
        designId: design,
        label,
        number: await this.nextNumber(manager, design, label),
        arrangement,
        version: contract.version,
        revision,
        operations: contract.operations.length,
        madeAt: new Date(),
        contract: await packJson(contract),
      };
      await manager.insert(ReleaseRow, row);
      return viewOf(row);
    });
  }

  private async nextNumber(manager: EntityManager, design: string, label: string): Promise<number> {
    const there = await manager.find(ReleaseRow, {
      select: { designId: true, label: true, number: true },
      where: { designId: design },
    });
    if (there.some((release) => release.label === label))
      throw new ApiProblem('conflict', `There is a release ${label} already, and releases never change.`);
    if (there.length >= MOST_RELEASES)
      throw new ApiProblem('conflict', `A design has at most ${MOST_RELEASES} releases; remove one first.`);
    return Math.max(0, ...there.map(({ number }) => number)) + 1;
  }

  async read(design: string, label: string): Promise<ReleaseView> {
    return viewOf(await this.row(design, label));
  }

  /** The contract as JSON, byte by byte as it was frozen. */
  async contract(design: string, label: string): Promise<string> {
    return unpackText((await this.row(design, label)).contract);
  }

  /** The OpenAPI document of a release. */
  async description(design: string, label: string): Promise<object> {
    return openApiDocument(await unpackJson<Contract>((await this.row(design, label)).contract));
  }

  /** What changed from a release to what an arrangement implies now; its own where none is named. */
  async changes(design: string, label: string, arrangement: string | undefined): Promise<readonly Change[]> {
    const row = await this.row(design, label);
    const { contract } = await this.designs.derivation(design, arrangement ?? row.arrangement);
    return compareContracts(await unpackJson<Contract>(row.contract), contract);
  }

  /** Takes a release back, as if it had not been made. */
  async remove(design: string, label: string): Promise<void> {
    await this.designs.row(design);
    const gone = await this.database.getRepository(ReleaseRow).delete({ designId: design, label });
    if (gone.affected !== 1) throw notThere(label);
  }

  private async row(design: string, label: string): Promise<ReleaseRow> {
    await this.designs.row(design);
    const row = await this.database.getRepository(ReleaseRow).findOneBy({ designId: design, label });
    if (row === null) throw notThere(label);
    return row;
  }
}

const notThere = (label: string): ApiProblem =>
  new ApiProblem('not-found', `The design has no release ${label}.`);

const viewOf = ({
  label,
  arrangement,
  version,
  revision,
  operations,
  madeAt,
}: Omit<ReleaseRow, 'contract'>): ReleaseView => ({
  label,
  arrangement,
  version,
  revision,
  operations,
  madeAt: madeAt.toISOString(),
});
