import { Module, type DynamicModule } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_INTERCEPTOR, APP_PIPE } from '@nestjs/core';
import { TypeOrmModule } from '@nestjs/typeorm';
import { AboutController } from './about/about.controller.js';
import type { Config } from './config.js';
import { databaseOptions } from './database/options.js';
import { DesignsModule } from './designs/designs.module.js';
import { AccessGuard } from './http/accessGuard.js';
import { AnswerInterceptor } from './http/answered.js';
import { BodyInterceptor } from './http/bodyInterceptor.js';
import { InputPipe } from './http/inputPipe.js';
import { ProblemFilter } from './http/problem.filter.js';
import { IntakeModule } from './intake/intake.module.js';
import { MocksModule } from './mocks/mocks.module.js';
import { PagesModule } from './pages.module.js';
import { SettingsModule } from './settings.module.js';

@Module({})
export class AppModule {
  static with(config: Config): DynamicModule {
    return {
      module: AppModule,
      imports: [
        SettingsModule.with(config),
        TypeOrmModule.forRoot({
          ...databaseOptions(config.databaseUrl),
          retryAttempts: 5,
          retryDelay: 1_000,
        }),
        IntakeModule,
        DesignsModule,
        MocksModule,
        // Last: it answers whatever no other does.
        PagesModule,
      ],
      controllers: [AboutController],
      providers: [
        { provide: APP_GUARD, useClass: AccessGuard },
        { provide: APP_INTERCEPTOR, useClass: BodyInterceptor },
        { provide: APP_INTERCEPTOR, useClass: AnswerInterceptor },
        { provide: APP_PIPE, useClass: InputPipe },
        { provide: APP_FILTER, useClass: ProblemFilter },
      ],
    };
  }
}
