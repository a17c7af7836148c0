import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { ComputeService } from '../src/compute/compute.service.js';
import { TestApp, type DesignBody } from './support/app.js';
import { createSchema, runSql } from './support/database.js';
import { eventually } from './support/server.js';

interface Listed {
  readonly items: readonly { readonly name: string; readonly figures: { readonly paths: number } | null }[];
}

let app: TestApp;
let schema: string;
beforeAll(async () => {
  schema = await createSchema();
  app = await TestApp.start({ databaseUrl: schema });
});
afterAll(() => app.close());

const model = (number: number): string =>
  `design "Design ${number}"\n\nentity Route\n  name: text\n\nentity Port\n  code: text\n`;

describe('what designs amount to', () => {
  test('is kept with them: listing derives nothing, however many there are', async () => {
    const made = await app.createDesign(model(0));
    // The rest as rows: only the listing is looked at.
    await runSql(
      schema,
      `INSERT INTO designs (id, name, text, valid_text, identities, choices, rename_candidates, figures, figures_version,
         revision, created_at, changed_at)
       SELECT UUID(), CONCAT('Design ', seq), text, valid_text, identities, choices, rename_candidates, figures,
         figures_version, 1, created_at, changed_at
       FROM designs CROSS JOIN seq_1_to_500 WHERE id = '${made.id}'`,
    );
    const run = jest.spyOn(ComputeService.prototype, 'run');
    let count = 0;
    for (let path: string | undefined = '/api/designs?limit=200'; path !== undefined;) {
      const response: Response = await app.send('GET', path);
      const { items } = (await response.json()) as Listed;
      for (const { name, figures } of items.slice(0, 20))
        if (name.startsWith('Design')) expect(figures?.paths).toBe(made.figures.paths);
      count += items.length;
      path = /<([^>]+)>; rel="next"/.exec(response.headers.get('link') ?? '')?.[1];
    }
    expect(count).toBe(502);
    expect(run).not.toHaveBeenCalled();
    run.mockRestore();
  });

  test('follows every change', async () => {
    const made = await app.createDesign(model(1));
    await app.json('PUT', `/api/designs/${made.id}/model`, {
      text: `${model(1)}\nentity Pier\n  berth: text\n`,
    });
    const { items } = await app.json<Listed>('GET', '/api/designs?limit=1');
    expect(items[0]?.figures?.paths).toBeGreaterThan(made.figures.paths);
  });

  test('is worked out anew after an upgrade, aside, and shown as unknown before', async () => {
    const made = await app.createDesign(model(2));
    await runSql(schema, `UPDATE designs SET figures = NULL, figures_version = 0 WHERE id = '${made.id}'`);
    const before = await app.json<Listed>('GET', '/api/designs?limit=1');
    expect(before.items[0]).toMatchObject({ name: 'Design 2', figures: null });
    const read = await app.json<DesignBody>('GET', `/api/designs/${made.id}`);
    expect(read.figures).toEqual(made.figures);
    const again = await TestApp.start({ databaseUrl: schema });
    try {
      const after = await eventually(async () => {
        const { items } = await again.json<Listed>('GET', '/api/designs?limit=1');
        return items[0]?.figures ?? null;
      }, 'the figures');
      expect(after).toEqual(made.figures);
    } finally {
      await again.stop();
    }
  });
});
