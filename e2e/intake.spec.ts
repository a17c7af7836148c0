import { expect, test } from './support/isomeros.js';

test('DDL is read with a report before anything is kept', async ({ page, isomeros }) => {
  await page.goto(isomeros.url);
  await page.getByRole('link', { name: 'Open', exact: true }).click();
  await page
    .getByRole('textbox', { name: 'SQL DDL' })
    .fill(
      'CREATE TABLE routes (id int AUTO_INCREMENT PRIMARY KEY, picture blob); CREATE TABLE stops (id int PRIMARY KEY, route_id int NOT NULL REFERENCES routes(id) ON DELETE CASCADE);',
    );
  await page.getByLabel('Name of the design').fill('Read from a schema');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByRole('region', { name: 'As a model' })).toContainText(
    'each Route owns many Stop as stops, back as route',
  );
  await expect(page.getByRole('region', { name: 'Assumed' })).toContainText(
    'A Stop exists only within its Route: it is owned.',
  );
  await expect(page.getByRole('region', { name: 'Left out' })).toContainText('picture blob');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(
    page.getByRole('listbox', { name: 'Path tree' }).getByText('/stops', { exact: true }),
  ).toBeVisible();
});
