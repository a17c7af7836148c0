import type { NewDesign } from './designs.js';
import type { IntakeReport } from './intake.js';
import type { ProblemBody } from './problems.js';

/** A source that is read as a design while whoever sent it does something else. It is told of for ten minutes after its end. */
export interface RunningIntake {
  /** @format uuid */
  readonly id: string;
  /** The share of the reading that is done, from 0 to 1. */
  readonly done: number;
  /** The id of the design that was made; `null` before. */
  readonly design: string | null;
  /** What became of the source, once there is a design. */
  readonly report: IntakeReport | null;
  /** Why there is none and will be none. */
  readonly problem: ProblemBody | null;
}

/** What can be done with sources that are read as designs meanwhile. */
export interface RunningIntakeRoutes {
  /** Create a design without waiting for it: how far it is, and what became of it, is told where the answer leads */
  'POST /api/intakes': {
    readonly body: NewDesign;
    readonly status: 202;
    readonly answer: RunningIntake;
    readonly headers: 'Location';
    readonly problems: 'invalid' | 'too-large' | 'media-type' | 'conflict';
  };
  /** Read how far an intake is, or what became of it */
  'GET /api/intakes/{id}': { readonly answer: RunningIntake; readonly problems: 'not-found' };
  /** Cancel an intake, or forget what became of it */
  'DELETE /api/intakes/{id}': { readonly status: 204; readonly problems: 'not-found' };
}
