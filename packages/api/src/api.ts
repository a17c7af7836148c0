import type { AboutRoutes } from './about.js';
import type { DesignRoutes } from './designs.js';
import type { ExchangeRoutes } from './exchanges.js';
import type { IntakeRoutes } from './intake.js';
import type { MockRoutes } from './mocks.js';
import type { RecordRoutes } from './records.js';
import type { ReleaseRoutes } from './releases.js';
import type { RunningIntakeRoutes } from './runningIntakes.js';

/** Every operation of the application's own interface, by its method and path. */
export interface Api
  extends
    AboutRoutes,
    DesignRoutes,
    ReleaseRoutes,
    IntakeRoutes,
    RunningIntakeRoutes,
    MockRoutes,
    ExchangeRoutes,
    RecordRoutes {}
