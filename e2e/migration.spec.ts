import { expect, test } from './support/isomeros.js';

const TEXT = `entity Route
  code: text(2..4), key
  name: text(1..60)
  length: text(0..9)
`;

test('a model that records contradict waits until it is decided what becomes of them', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  const base = await isomeros.createMock(id, { Route: 0 });
  const [{ id: mock }] = (await isomeros.ask<{ items: [{ id: string }] }>('GET', `/api/mocks?design=${id}`))
    .items;
  await isomeros.ask('POST', `/api/mocks/${mock}/records`, {
    Route: [
      { code: 'KS', name: 'Over', length: '12' },
      { code: 'XX', length: 'far' },
    ],
  });
  await isomeros.ask('PUT', `/api/designs/${id}/model`, {
    text: TEXT.replace('name: text(1..60)', 'name: text(1..60), required').replace('text(0..9)', 'integer'),
  });
  await page.goto(`${isomeros.url}/designs/${id}/mock`);
  await expect(page.getByText('Route.name is required, and has no value: XX.')).toBeVisible();
  await page.getByRole('button', { name: 'Migrate' }).click();
  const migration = page.getByRole('region', { name: 'Migration' });
  await expect(migration).toContainText('2 of 2 to decide.');
  const choose = async (step: string, offer: RegExp): Promise<void> => {
    await migration
      .getByRole('radiogroup', { name: `What is done: ${step}` })
      .getByText(offer)
      .click();
  };
  await choose('Route.length has values that do not fit an integer.', /^Convert/);
  await choose('Route.name is required, and has no value.', /^Fill in: all get text/);
  await migration.getByLabel('Value for: Route.name is required').fill('Named');
  await expect(migration).toContainText('All is decided.');
  await migration.getByRole('button', { name: 'Migrate the records' }).click();
  await expect(migration.getByRole('alert')).toContainText('Nothing was changed: 1 thing is still open.');
  await expect(migration).toContainText('1 record: XX');
  await migration.getByLabel('What cannot be converted: Route.length').click();
  await page.locator('.ant-select-dropdown:visible').getByText('what cannot be: drop').click();
  await migration.getByRole('button', { name: 'Migrate the records' }).click();
  await expect(page.getByText('Serves, revision 2')).toBeVisible();
  expect(await (await fetch(`${base}/routes/XX`)).json()).toMatchObject({ name: 'Named', length: null });
  expect(await (await fetch(`${base}/routes/KS`)).json()).toMatchObject({ name: 'Over', length: 12 });
  await page.getByRole('button', { name: 'Snapshots' }).click();
  await expect(page.getByRole('list', { name: 'Snapshots' })).toContainText('before revision 2');
});
