import { join } from 'node:path';
import { FIRST_MOCK_PORT, USUAL_LIMITS } from '../../src/config.js';
import type { ServerSettings } from '../../src/settings.js';

/** What services read of the configuration of a test. */
export const TEST_SETTINGS: ServerSettings = {
  host: '127.0.0.1',
  mockPort: Number(process.env['ISOMEROS_MOCK_PORT'] ?? FIRST_MOCK_PORT),
  webFolder: null,
  samplesFolder: join(import.meta.dirname, '../../../../samples'),
  computeProgram: join(import.meta.dirname, '../../dist/compute/program.js'),
  token: null,
  limits: USUAL_LIMITS,
};
