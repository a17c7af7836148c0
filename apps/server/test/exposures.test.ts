import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { TestApp } from './support/app.js';

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

test('what the model does not allow of a member cannot be chosen, and what was chosen before stays', async () => {
  const model = (flags: string): string => `entity Member\n  name: text(1..40)\n  pin: text(4..4)${flags}\n`;
  const { id } = await app.createDesign(model(', write-only'));
  const path = `/api/designs/${id}/arrangements/main`;
  const exposures = { Member: { 'Member.pin': { out: 'yes', filter: ['eq'], create: 'may' } } };
  const refused = await app.send('PUT', path, { settings: {}, exposures });
  expect([refused.status, await refused.json()]).toMatchObject([
    400,
    {
      errors: [
        {
          pointer: '/exposures/Member/Member.pin/out',
          code: 'not-allowed',
          message: 'Member.pin: for out the model allows no; yes was chosen.',
        },
        { pointer: '/exposures/Member/Member.pin/filter' },
      ],
    },
  ]);
  const choices = { settings: {}, arrangements: [{ name: 'main', exposures }], answered: [] };
  const whole = await app.send('PUT', `/api/designs/${id}/choices`, choices);
  expect(await whole.json()).toMatchObject({
    errors: [{ pointer: '/arrangements/0/exposures/Member/Member.pin/out' }, {}],
  });
  await app.json('PUT', `/api/designs/${id}/model`, { text: model('') });
  await app.json('PUT', path, { settings: {}, exposures });
  await app.json('PUT', `/api/designs/${id}/model`, { text: model(', write-only') });
  await app.json('PUT', path, { settings: { version: 'v2' }, exposures });
  expect((await app.send('PUT', `${path}2`, { settings: {}, exposures })).status).toBe(201);
});
