import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import type { Decision, MigrationStep } from '@isomeros/core/migration';
import type { Json } from '@isomeros/core/model';
import { pointerTo } from '@isomeros/core/engine';
import type { DataSource } from 'typeorm';
import { DesignsService, type SoundModel } from '../designs/designs.service.js';
import { ApiProblem } from '../http/problem.js';
import { viewOf, type Held } from './held.js';
import { HeldMocks } from './heldMocks.js';
import { DecisionsDto } from './mocks.dto.js';
import { modelColumnsOf } from './provision.js';
import { migrationOf, NOTHING_DECIDED, takeOver } from './renewal.js';
import { servedNames } from './served.js';
import { Snapshots } from './snapshots.js';
import type { MockView } from './views.js';

/** What stands between the records of a mock and the newest model of its design. */
export interface MigrationView {
  /** The revision that is served. */
  readonly from: number;
  /** The newest sound revision. */
  readonly to: number;
  readonly steps: readonly MigrationStep[];
}

/** The plan by which the records of a mock follow an edited model. */
@Controller('api/mocks/:id/migration')
export class MigrationController {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly mocks: HeldMocks,
    private readonly designs: DesignsService,
  ) {}

  @Get()
  async plan(@Param('id') id: string): Promise<MigrationView> {
    const held = this.mocks.find(id);
    const newest = await this.newest(held);
    const from = held.dataset.modelRevision;
    if (newest === null) return { from, to: from, steps: [] };
    const { migrated } = migrationOf(held, newest, NOTHING_DECIDED);
    return { from, to: newest.revision, steps: migrated.open };
  }

  /** Carries out what was decided, after a snapshot, or does nothing and says what is still open. */
  @Post()
  @HttpCode(200)
  migrate(@Param('id') id: string, @Body() { decisions }: DecisionsDto): Promise<MockView> {
    const held = this.mocks.find(id);
    const decided = readDecisions(decisions);
    return this.mocks.inTurn.run(held.row.designId, async () => {
      const newest = await this.newest(held);
      if (newest !== null) await this.carryOut(held, newest, decided);
      this.mocks.announce(held);
      return viewOf(held);
    });
  }

  private async carryOut(
    held: Held,
    newest: SoundModel,
    decided: ReadonlyMap<string, Decision>,
  ): Promise<void> {
    await held.records.settled();
    const { migrated } = migrationOf(held, newest, decided);
    if (migrated.problems.length > 0)
      throw new ApiProblem('invalid', 'A value to fill in does not fit.', {
        errors: migrated.problems.map((problem) =>
          'pointer' in problem ? { ...problem, pointer: `/decisions${problem.pointer}` } : problem,
        ),
      });
    if (migrated.open.length > 0) {
      const things = migrated.open.length === 1 ? '1 thing is' : `${migrated.open.length} things are`;
      throw new ApiProblem('conflict', `Nothing was changed: ${things} still open.`, {
        members: { steps: migrated.open },
      });
    }
    const model = modelColumnsOf(held.dataset);
    const rows = [...held.records.dataset.everything()];
    await new Snapshots(this.database, held.row.id).take(`before revision ${newest.revision}`, {
      model,
      rows,
    });
    await takeOver(held, newest, decided, (releases) => this.mocks.part(held, releases));
  }

  /** The newest sound model, where another one is served; a mock of releases alone never follows. */
  private async newest(held: Held): Promise<SoundModel | null> {
    if (servedNames(held.row).length === 0) return null;
    const newest = await this.designs.soundModel(held.row.designId);
    return newest.revision === held.dataset.modelRevision ? null : newest;
  }
}

function readDecisions(given: Readonly<Record<string, unknown>>): ReadonlyMap<string, Decision> {
  const errors: { pointer: string; code: string; message: string }[] = [];
  const decided = Object.entries(given).flatMap(([step, decision]): [string, Decision][] => {
    const read = readDecision(decision);
    if (read !== null) return [[step, read]];
    const message =
      'Expected an object with do: fill (and a value), convert (and what is done otherwise) or drop.';
    errors.push({ pointer: pointerTo('/decisions', step), code: 'type', message });
    return [];
  });
  if (errors.length > 0) throw new ApiProblem('invalid', 'What is decided does not fit.', { errors });
  return new Map(decided);
}

function readDecision(given: unknown): Decision | null {
  if (typeof given !== 'object' || given === null || !('do' in given)) return null;
  if (given.do === 'drop') return { do: 'drop' };
  if (given.do === 'fill') return 'value' in given ? { do: 'fill', value: given.value as Json } : null;
  if (given.do !== 'convert') return null;
  if (!('otherwise' in given)) return { do: 'convert' };
  const otherwise = readDecision(given.otherwise);
  return otherwise === null || otherwise.do === 'convert' ? null : { do: 'convert', otherwise };
}
