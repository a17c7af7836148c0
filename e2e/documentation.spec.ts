import { expect, test } from './support/isomeros.js';

test('an operation is documented where it is read, another ends and says so, a third is left unpublished', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign('entity Route\n  name: text(1..20), required\n');
  const open = (operation: string): Promise<unknown> =>
    page.goto(`${isomeros.url}/designs/${id}/contract?operation=${operation}`);
  await open('listRoutes');
  await page.getByLabel('Summary').fill('All that sails');
  await page.keyboard.press('Enter');
  await page.getByLabel('Description').fill('In the order of their *ids*.');
  await page.keyboard.press('Enter');
  await page.getByLabel('Summary').fill('something else');
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Summary')).toHaveValue('All that sails');
  await expect(page.getByText('All changes kept')).toBeVisible();

  await open('removeRoute');
  await page.getByLabel('Deprecated from').fill('2027-02-31');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Expected a date');
  await page.getByLabel('Deprecated from').fill('2027-01-31');
  await page.keyboard.press('Enter');
  await expect(
    page.getByRole('button', { name: /removeRoute, .*, deprecated from 2027-01-31/ }),
  ).toBeVisible();
  await expect(page.getByText('All changes kept')).toBeVisible();

  await open('replaceRoute');
  await page.getByRole('checkbox', { name: 'in published documents' }).uncheck();
  await expect(page.getByRole('button', { name: /replaceRoute, .*in no published document/ })).toBeVisible();
  await expect(page.getByText('All changes kept')).toBeVisible();

  const mock = await isomeros.createMock(id, { Route: 1 });
  expect((await fetch(`${mock}/routes/1`, { method: 'DELETE' })).headers.get('deprecation')).toBe(
    '@1801353600',
  );
  const published = (await (await fetch(`${mock}/-/openapi.json`)).json()) as {
    paths: Record<string, Record<string, { summary: string; description?: string }>>;
  };
  expect(published.paths['/routes']?.['get']).toMatchObject({
    summary: 'All that sails',
    description: 'In the order of their *ids*.',
  });
  expect(Object.keys(published.paths['/routes/{routeId}'] ?? {})).not.toContain('put');
});
