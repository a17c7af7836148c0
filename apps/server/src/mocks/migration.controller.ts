import type { Response } from 'express';
import { Body, Controller, Param, Res } from '@nestjs/common';
import type { MigrationView, Mock } from '@isomeros/api';
import { pointerTo } from '@isomeros/core/engine';
import type { Decision } from '@isomeros/core/migration';
import type { Json } from '@isomeros/core/model';
import { clientAbortSignal } from '../http/clientAbort.js';
import { ApiProblem } from '../http/problem.js';
import { Route } from '../http/route.js';
import { MigrationService } from './migration.service.js';
import { DecisionsDto } from './mocks.dto.js';

/** The plan by which the records of a mock follow an edited model. */
@Controller()
export class MigrationController {
  constructor(private readonly migrations: MigrationService) {}

  @Route('GET /api/mocks/{id}/migration')
  plan(@Param('id') id: string): Promise<MigrationView> {
    return this.migrations.plan(id);
  }

  @Route('POST /api/mocks/{id}/migration')
  migrate(
    @Param('id') id: string,
    @Body() { decisions }: DecisionsDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<Mock> {
    return this.migrations.migrate(id, readDecisions(decisions), clientAbortSignal(response));
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
