import { Global, Module, type DynamicModule } from '@nestjs/common';
import type { Config } from './config.js';
import { SERVER_SETTINGS } from './settings.js';

/** What the server was told from outside, for whoever asks. */
@Global()
@Module({})
export class SettingsModule {
  static with(config: Config): DynamicModule {
    return {
      module: SettingsModule,
      providers: [{ provide: SERVER_SETTINGS, useValue: config }],
      exports: [SERVER_SETTINGS],
    };
  }
}
