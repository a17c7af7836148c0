import { expect, stage, test } from './support/isomeros.js';

const TEXT = `design "Arranged"

entity CrewMember
  name: text(1..60), required

entity ShiftPlan
  day: date

each CrewMember owns many ShiftPlan as shiftPlans, back as member
`;

test('a convention is chosen, seen in paths, example and mock, told where it was set, and reset', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  const mock = await isomeros.ask<{ id: string; port: number }>('POST', '/api/mocks', {
    design: id,
    arrangements: ['main'],
  });
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await stage(page, 'Arrange').click();
  const tree = page.getByRole('listbox', { name: 'Path tree' });
  const row = (title: string): ReturnType<typeof page.locator> =>
    page.getByRole('region', { name: 'Conventions' }).getByRole('listitem').filter({ hasText: title });
  await expect(tree.getByText('/shift-plans')).toBeVisible();

  await page.getByLabel('Version in the path').fill('v2');
  await page.keyboard.press('Enter');
  await expect(tree.getByText('/api/v2')).toBeVisible();
  await expect(row('Version in the path')).toContainText('arrangement');
  await page.getByLabel('Ids in the path of an item').fill('1');
  await expect(tree.locator('.row.new')).toContainText(['/shift-plans/{shiftPlanId}']);
  await tree.getByText('/crew-members', { exact: true }).click();
  await expect(page.getByLabel('Example exchange')).toContainText('GET /api/v2/crew-members HTTP/1.1');
  const status = async (path: string): Promise<number> =>
    (await fetch(`http://127.0.0.1:${mock.port}${path}`)).status;
  await expect.poll(() => status('/api/v2/shift-plans/1')).toBe(200);
  expect(await status('/api/v1/crew-members')).toBe(404);

  await page.getByLabel('Base path').fill('no such path');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Expected a path such as /api');

  await page.reload();
  await expect(tree.getByText('/api/v2')).toBeVisible();
  await row('Version in the path').getByRole('button', { name: 'Reset Version in the path' }).click();
  await expect(tree.getByText('/api/v1')).toBeVisible();
  await expect(row('Version in the path')).toContainText('default');
  await tree.getByText('/crew-members', { exact: true }).click();
  await expect(page.getByRole('region', { name: 'The chosen path' })).toContainText('place.root');
});
