import { Controller, Get } from '@nestjs/common';
import { PROBLEM_KINDS } from '../http/problem.js';
import { apiDescription } from './apiDescription.js';

@Controller('api')
export class DescriptionController {
  @Get('openapi.json')
  read(): object {
    return apiDescription();
  }

  /** Where the `type` of a problem leads. */
  @Get('problems')
  problems(): typeof PROBLEM_KINDS {
    return PROBLEM_KINDS;
  }
}
