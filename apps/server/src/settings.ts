import type { Config } from './config.js';

/** The part of the configuration that services read. */
export type ServerSettings = Pick<
  Config,
  'samplesFolder' | 'computeProgram' | 'webFolder' | 'host' | 'mockPort' | 'token' | 'limits'
>;

/** The token under which Nest hands the settings out. */
export const SERVER_SETTINGS = Symbol('settings');
