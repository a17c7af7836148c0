import { TEXT } from './support/arranging.js';
import { expect, press, stage, test } from './support/isomeros.js';

test('a write is taken back, records are kept under a name and put back, in two arrangements at once', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await isomeros.ask('PUT', `/api/designs/${id}/arrangements/beside`, { settings: { version: 'v2' } });
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await stage(page, 'Mock').click();
  await page.getByRole('button', { name: 'Start the mock' }).click();
  await expect(page.getByRole('group', { name: 'What is served' })).toHaveText('mainbeside');
  const base = (await page.getByTestId('base-url').textContent()) ?? '';
  const nameOf = async (): Promise<string> =>
    ((await (await fetch(`${base}/crew-members/1`)).json()) as { name: string }).name;
  const first = await nameOf();
  const rename = (name: string): Promise<Response> =>
    fetch(`${base}/crew-members/1`, {
      method: 'PATCH',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ name }),
    });

  await rename('Somebody else');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(nameOf).toBe(first);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('alert')).toContainText('no write to take back');

  await page.getByRole('button', { name: 'Snapshots' }).click();
  await page.getByLabel('Name of the snapshot').fill('fresh');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('list', { name: 'Snapshots' })).toContainText('fresh');
  await rename('Changed again');
  await page.getByRole('button', { name: 'Restore fresh' }).click();
  await expect.poll(nameOf).toBe(first);

  await page.getByRole('button', { name: 'main ▾' }).click();
  await page.getByRole('button', { name: 'beside', exact: true }).last().click();
  await expect(page.getByTestId('base-url')).toContainText('/api/v2');
  const beside = (await page.getByTestId('base-url').textContent()) ?? '';
  expect(await (await fetch(`${beside}/crew-members/1`)).json()).toMatchObject({ name: first });
});

test('a mock gets fault rules in lines, shows them, and stops them again', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign('entity Route\n  name: text(1..60), required\n');
  const base = await isomeros.createMock(id, { Route: 3 });
  await page.goto(`${isomeros.url}/designs/${id}/mock`);
  await page.getByRole('button', { name: 'Faults', exact: true }).click();
  const lines = page.getByLabel('Fault rules');
  await lines.fill('listRoutes: 503 100%\nnobody: 200 ms');
  await page.getByRole('button', { name: 'Start faults' }).click();
  await expect(page.getByRole('alert')).toContainText('Line 2: There is no operation nobody.');
  await lines.fill('listRoutes: 503 100%, 20 ms');
  await press(lines, 'Control+Enter');
  const button = page.getByRole('button', { name: 'Faults 1' });
  await expect(button).toBeVisible();
  // A press while the panel closes would open nothing.
  await expect(lines).toBeHidden();
  expect((await fetch(`${base}/routes`)).status).toBe(503);
  expect((await fetch(`${base}/routes/1`)).status).toBe(200);
  await button.click();
  await expect(lines).toBeVisible();
  await expect(lines).toHaveValue('listRoutes: 20 ms, 503 100%');
  await page.getByRole('button', { name: 'Stop faults' }).click();
  await expect(page.getByRole('button', { name: 'Faults', exact: true })).toBeVisible();
  expect((await fetch(`${base}/routes`)).status).toBe(200);
});

test('fault rules cannot be written before those that are there are read', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign('entity Route\n  name: text(1..60), required\n');
  await isomeros.createMock(id, { Route: 3 });
  let go = (): void => undefined;
  const held = new Promise<void>((resolve) => {
    go = resolve;
  });
  await page.route('**/faults', async (route) => {
    await held;
    await route.continue();
  });
  await page.goto(`${isomeros.url}/designs/${id}/mock`);
  await page.getByRole('button', { name: 'Faults', exact: true }).click();
  const lines = page.getByLabel('Fault rules');
  await expect(lines).toBeDisabled();
  await expect(page.getByRole('button', { name: 'Start faults' })).toBeDisabled();
  go();
  await expect(lines).toBeEnabled();
});
