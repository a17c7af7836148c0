import { expect, test } from './support/isomeros.js';

const TEXT = `entity Route
  name: text(1..60), required
  state: choice(open, closed), default open
    close: open -> closed

entity Sailing
  berth: text(1..4)

each Route owns many Sailing as sailings
`;

test('records go out as CSV, come in changed, are told about where they do not fit, and are seeded by a plan', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  const base = await isomeros.createMock(id, { Route: 3, Sailing: 0 });
  await page.goto(`${isomeros.url}/designs/${id}/mock`);
  await page.getByRole('button', { name: 'Records', exact: true }).click();
  const records = page.getByRole('region', { name: 'Records', exact: true });
  const routes = records.getByRole('row', { name: 'Route' });
  await expect(routes).toContainText('3');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    routes.getByRole('link', { name: 'Route as CSV' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Route.csv');

  await page.getByLabel('A file of records').setInputFiles({
    name: 'Route.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('id,name,state\n1,Over the sound,closed\n9,Along the coast,ajar\n'),
  });
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('list', { name: 'What does not fit' })).toHaveText(
    'Line 3: Expected one of open, closed; it is "ajar".',
  );
  const given = page.getByLabel('Records as JSON or comma-separated values');
  await given.fill((await given.inputValue()).replace('ajar', ''));
  await page.getByRole('button', { name: 'Check' }).click();
  await expect(page.getByRole('status')).toContainText('It fits. Nothing was written yet.');
  await expect(routes).toContainText('3');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('status')).toContainText('Imported.');
  await expect(routes).toContainText('4');
  expect(await (await fetch(`${base}/routes/1`)).json()).toMatchObject({
    name: 'Over the sound',
    state: 'closed',
  });

  const wishes = page.getByLabel('What is wanted of seed records');
  await expect(wishes).toHaveValue('Route: 3\nSailing: 0');
  const reset = async (): Promise<void> => {
    await page.getByRole('button', { name: 'Reset to this seed' }).click();
    await page.getByRole('button', { name: 'Reset', exact: true }).last().click();
  };
  await wishes.fill('Route: 5\nSailings: 2 each');
  await reset();
  await expect(page.getByRole('alert')).toContainText(
    'Line 2: There is no entity Sailings. The nearest is Sailing.',
  );
  await wishes.fill('Route: 5\nSailing: 2 each\nRoute.state: closed 1');
  await reset();
  await expect(records.getByRole('row', { name: 'Sailing' })).toContainText('10');
  expect(await (await fetch(`${base}/routes?state=open`)).json()).toMatchObject({ items: [] });
});
