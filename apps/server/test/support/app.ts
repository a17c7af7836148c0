import type { AddressInfo } from 'node:net';
import type { Design as DesignBody, Mock } from '@isomeros/api';
import { createApplication } from '../../src/application.js';
import type { Config } from '../../src/config.js';
import { createSchema, dropSchema } from './database.js';
import { sendJson } from './server.js';
import { TEST_SETTINGS } from './settings.js';

/** The application inside the test, on a schema of its own and a free port. */
export class TestApp {
  private constructor(
    readonly url: string,
    private readonly schema: string,
    private readonly closeApp: () => Promise<void>,
  ) {}

  static async start(config: Partial<Config> = {}): Promise<TestApp> {
    const schema = config.databaseUrl ?? (await createSchema());
    const app = await createApplication({
      ...TEST_SETTINGS,
      port: 0,
      databaseUrl: schema,
      ...config,
    });
    await app.listen(0, '127.0.0.1');
    const { port } = app.getHttpServer().address() as AddressInfo;
    return new TestApp(`http://127.0.0.1:${port}`, schema, () => app.close());
  }

  /** Ends it, and leaves the schema as it is. */
  stop(): Promise<void> {
    return this.closeApp();
  }

  async close(): Promise<void> {
    await this.stop();
    await dropSchema(this.schema);
  }

  send(
    method: string,
    path: string,
    body?: unknown,
    headers: Readonly<Record<string, string>> = {},
  ): Promise<Response> {
    return sendJson(this.url + path, method, body, headers);
  }

  async json<T>(method: string, path: string, body?: unknown): Promise<T> {
    const response = await this.send(method, path, body);
    if (!response.ok)
      throw new Error(`${method} ${path} answered ${response.status}: ${await response.text()}`);
    return (await response.json()) as T;
  }

  createDesign(text: string, name?: string): Promise<DesignBody> {
    return this.json('POST', '/api/designs', {
      ...(name === undefined ? {} : { name }),
      source: { format: 'notation', text },
    });
  }

  createMock(design: string, more: object = {}): Promise<MockBody> {
    return this.json('POST', '/api/mocks', { design, arrangements: ['main'], ...more });
  }
}

export type { Design as DesignBody, ProblemBody } from '@isomeros/api';

/** A mock that serves the arrangement main, as most do. */
export type MockBody = Mock & { readonly baseUrls: { readonly main: string } };
