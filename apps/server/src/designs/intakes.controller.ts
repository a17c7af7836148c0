import { Body, Controller, Param } from '@nestjs/common';
import type { RunningIntake } from '@isomeros/api';
import { Answered } from '../http/answered.js';
import { Route } from '../http/route.js';
import { CreateDesignDto } from './designs.dto.js';
import { IntakesService } from './intakes.service.js';

@Controller()
export class IntakesController {
  constructor(private readonly intakes: IntakesService) {}

  @Route('POST /api/intakes')
  begin(@Body() body: CreateDesignDto): Answered<RunningIntake> {
    const intake = this.intakes.begin(body);
    return new Answered(intake, { location: `/api/intakes/${intake.id}` });
  }

  @Route('GET /api/intakes/{id}')
  read(@Param('id') id: string): RunningIntake {
    return this.intakes.read(id);
  }

  @Route('DELETE /api/intakes/{id}')
  remove(@Param('id') id: string): Promise<void> {
    this.intakes.remove(id);
    return Promise.resolve();
  }
}
