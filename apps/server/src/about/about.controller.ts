import { PROBLEM_KINDS } from '@isomeros/api';
import { Controller, Header } from '@nestjs/common';
import { API_DESCRIPTION, Route, TextRoute } from '../http/route.js';

/** What the interface says of itself. */
@Controller()
export class AboutController {
  private readonly description = JSON.stringify(API_DESCRIPTION);

  @TextRoute('GET /api/openapi.json')
  @Header('Content-Type', 'application/json')
  read(): string {
    return this.description;
  }

  /** Where the `type` of a problem leads. */
  @Route('GET /api/problems')
  problems(): typeof PROBLEM_KINDS {
    return PROBLEM_KINDS;
  }
}
