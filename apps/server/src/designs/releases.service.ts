import type { Release, ReleaseEnd, Successor } from '@isomeros/api';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { ContractChange } from '@isomeros/core/comparison';
import { greatest, instantMillis } from '@isomeros/core/model';
import type { PublicationName } from '@isomeros/core/publication';
import { Repository, type EntityManager } from 'typeorm';
import { ComputeService } from '../compute/compute.service.js';
import type { Derivation, DerivationSource } from '../compute/program.js';
import { unpackText } from '../database/compressedJson.js';
import { ReleaseRow } from '../database/tables.js';
import { ApiProblem } from '../http/problem.js';
import { DesignDependents } from './designDependents.js';
import { choicesOf, readIdentities } from './designRows.js';
import { DesignsService } from './designs.service.js';
import type { ValidModel } from './modelColumns.js';
import { RevisionsService } from './revisions.service.js';

/** More of them a design does not keep. */
const MOST_RELEASES = 200;

/** A release as a mock serves it. */
export interface ServedRelease {
  readonly label: string;
  readonly derivation: Derivation;
  /** The model it was made from, as datasets are stored with it. */
  readonly model: ValidModel;
  readonly end: ReleaseEnd | null;
}

/** Freezes contracts under a label, and tells what has changed since. */
@Injectable()
export class ReleasesService {
  constructor(
    @InjectRepository(ReleaseRow) private readonly rows: Repository<ReleaseRow>,
    private readonly designs: DesignsService,
    private readonly revisions: RevisionsService,
    private readonly dependents: DesignDependents,
    private readonly compute: ComputeService,
  ) {}

  /** In the order they were made. */
  async list(design: string): Promise<readonly Release[]> {
    await this.designs.row(design);
    const rows = await this.rows.find({
      select: {
        designId: true,
        label: true,
        number: true,
        arrangement: true,
        version: true,
        revision: true,
        operations: true,
        madeAt: true,
        deprecatedAt: true,
        sunsetAt: true,
        successor: true,
      },
      where: { designId: design },
      order: { number: 'ASC' },
    });
    return rows.map(viewOf);
  }

  /** Freezes what the last sound text implies in an arrangement. A contract with an error is not released. */
  async make(design: string, label: string, arrangement: string): Promise<Release> {
    return this.rows.manager.transaction(async (manager) => {
      // Locks the design, so that two releases made at once get numbers of their own.
      await this.designs.row(design, manager);
      const { source, revision } = await this.designs.source(design, arrangement);
      const { packed, version, operations, errors } = await this.compute.run('freeze', source);
      if (errors.length > 0) {
        const count = `${errors.length} ${errors.length === 1 ? 'error' : 'errors'}`;
        throw new ApiProblem('conflict', `The contract has ${count}, the first: ${errors[0] ?? ''}`);
      }
      const row: ReleaseRow = {
        designId: design,
        label,
        number: await this.nextNumber(manager, design, label),
        arrangement,
        version,
        revision,
        operations,
        madeAt: new Date(),
        deprecatedAt: null,
        sunsetAt: null,
        successor: null,
        contract: Buffer.from(packed),
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
    return (
      greatest(
        there.map(({ number }) => number),
        0,
      ) + 1
    );
  }

  async read(design: string, label: string): Promise<Release> {
    return viewOf(await this.row(design, label));
  }

  /** The contract as JSON, byte by byte as it was frozen. */
  async contract(design: string, label: string): Promise<string> {
    return unpackText((await this.row(design, label)).contract);
  }

  /** A release as a document. */
  async document(design: string, label: string, as: PublicationName, namesMock: boolean): Promise<string> {
    const source = await this.frozenSource(design, await this.row(design, label));
    const mock = namesMock ? this.dependents.addressOf(design, 'release', label) : null;
    return this.compute.run('frozenDocument', { ...source, as, mock });
  }

  /** The formats of a release, with what each cannot say. */
  async publications(
    design: string,
    label: string,
  ): Promise<readonly { readonly format: PublicationName; readonly cannotSay: readonly string[] }[]> {
    return this.compute.run(
      'frozenPublications',
      await this.frozenSource(design, await this.row(design, label)),
    );
  }

  /** A frozen contract, and what it was made from. */
  private async frozenSource(
    design: string,
    { contract: packed, revision, arrangement }: ReleaseRow,
  ): Promise<DerivationSource & { readonly packed: Buffer }> {
    const state = await this.revisions.state(design, revision);
    return {
      text: state.validText,
      identities: readIdentities(state),
      choices: choicesOf(state),
      arrangement,
      packed,
    };
  }

  /** What changed from a release to what an arrangement implies now; its own where none is named. */
  async changes(
    design: string,
    label: string,
    arrangement: string | undefined,
  ): Promise<readonly ContractChange[]> {
    const row = await this.row(design, label);
    const { source } = await this.designs.source(design, arrangement ?? row.arrangement);
    return this.compute.run('changesSinceRelease', { ...source, label, packed: row.contract });
  }

  /** Says something about the end of a release, or takes it back; its contract stays as it is. */
  async mark(design: string, label: string, end: ReleaseEnd | null): Promise<Release> {
    const row = await this.row(design, label);
    if (end !== null) await this.checkEnd(design, label, end);
    const marked = {
      deprecatedAt: end === null ? null : new Date(instantMillis(end.deprecatedAt)),
      sunsetAt: end?.sunsetAt == null ? null : new Date(instantMillis(end.sunsetAt)),
      successor: end?.successor == null ? null : JSON.stringify(end.successor),
    };
    await this.rows.update({ designId: design, label }, marked);
    const view = viewOf({ ...row, ...marked });
    this.dependents.releaseMarked(design, label, view.end);
    return view;
  }

  private async checkEnd(
    design: string,
    label: string,
    { deprecatedAt, sunsetAt, successor }: ReleaseEnd,
  ): Promise<void> {
    if (sunsetAt !== null && instantMillis(sunsetAt) < instantMillis(deprecatedAt))
      throw endProblem('/sunsetAt', 'A release does not stop before it is deprecated (RFC 9745 §4).');
    if (successor === null) return;
    if ('release' in successor) {
      if (successor.release === label)
        throw endProblem('/successor', 'A release does not come after itself.');
      await this.row(design, successor.release);
    } else {
      const { choices } = await this.designs.validModel(design);
      this.designs.arrangement(choices, successor.arrangement);
    }
  }

  /** A release with the model it was made from. */
  async served(design: string, label: string): Promise<ServedRelease> {
    const row = await this.row(design, label);
    const source = await this.frozenSource(design, row);
    const { text, identities, choices } = source;
    const model: ValidModel = { text, identities, choices, revision: row.revision };
    const derivation = await this.compute.run('frozenDerivation', source);
    return { label, derivation, model, end: endOf(row) };
  }

  /** Takes a release back, as if it had not been made. */
  async remove(design: string, label: string): Promise<void> {
    await this.designs.row(design);
    const objection = this.dependents.objectionToRemovingRelease(design, label);
    if (objection !== null) throw new ApiProblem('conflict', objection);
    const gone = await this.rows.delete({ designId: design, label });
    if (gone.affected !== 1) throw notThere(label);
  }

  private async row(design: string, label: string): Promise<ReleaseRow> {
    await this.designs.row(design);
    const row = await this.rows.findOneBy({ designId: design, label });
    if (row === null) throw notThere(label);
    return row;
  }
}

const notThere = (label: string): ApiProblem =>
  new ApiProblem('not-found', `The design has no release ${label}.`);

const endProblem = (pointer: string, message: string): ApiProblem =>
  new ApiProblem('invalid', message, { errors: [{ pointer, code: 'range', message }] });

const endOf = ({
  deprecatedAt,
  sunsetAt,
  successor,
}: Pick<ReleaseRow, 'deprecatedAt' | 'sunsetAt' | 'successor'>): ReleaseEnd | null =>
  deprecatedAt === null
    ? null
    : {
        deprecatedAt: deprecatedAt.toISOString(),
        sunsetAt: sunsetAt === null ? null : sunsetAt.toISOString(),
        successor: successor === null ? null : (JSON.parse(successor) as Successor),
      };

const viewOf = ({
  label,
  arrangement,
  version,
  revision,
  operations,
  madeAt,
  ...end
}: Omit<ReleaseRow, 'contract'>): Release => ({
  label,
  arrangement,
  version,
  revision,
  operations,
  madeAt: madeAt.toISOString(),
  end: endOf(end),
});
