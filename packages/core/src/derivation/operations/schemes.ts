import type { Settings } from '../../arrangement/index.js';
import type { SecurityScheme } from '../../contract/index.js';

/** The schemes by which clients prove who they are, as the setting calls them. */
export const SCHEMES: Readonly<Record<Settings['security'][number], SecurityScheme>> = {
  basic: 'basic',
  bearer: 'bearer',
  'api key': 'key',
};
