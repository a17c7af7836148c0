import { convention, follows, path, TEXT, tree } from './support/arranging.js';
import { expect, stage, test } from './support/isomeros.js';

test('a convention is chosen, seen in paths, example and mock, told where it was set, and reset', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  const mock = await isomeros.createMock(id);
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await stage(page, 'Arrange').click();
  await expect(tree(page).getByText('/shift-plans')).toBeVisible();

  await page.getByLabel('Version', { exact: true }).fill('v2');
  await page.keyboard.press('Enter');
  await expect(tree(page).getByText('/api/v2')).toBeVisible();
  await expect(convention(page, 'Version').getByLabel('chosen at: arrangement')).toBeVisible();
  await page.getByRole('button', { name: 'Paths', exact: true }).click();
  await page.getByLabel('Ids in a path').fill('1');
  await expect(tree(page).getByText('/shift-plans/{shiftPlanId}')).toBeVisible();
  await tree(page).getByText('/crew-members', { exact: true }).click();
  await expect(page.getByLabel('Example exchange')).toContainText('GET /api/v2/crew-members HTTP/1.1');
  const status = async (at: string): Promise<number> => (await fetch(new URL(at, mock))).status;
  await expect.poll(() => status('/api/v2/shift-plans/1')).toBe(200);
  expect(await status('/api/v1/crew-members')).toBe(404);

  await page.getByLabel('Base path').fill('no such path');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Expected a path such as /api');

  await page.reload();
  await expect(tree(page).getByText('/api/v2')).toBeVisible();
  await page.getByRole('button', { name: 'Reset Version' }).click();
  await expect(tree(page).getByText('/api/v1')).toBeVisible();
  await expect(convention(page, 'Version').getByLabel('chosen at: default')).toBeVisible();
  await tree(page).getByText('/crew-members', { exact: true }).click();
  await page.getByRole('button', { name: 'Why' }).click();
  await expect(page.getByRole('region', { name: 'The chosen path' })).toContainText('place.root');
});

test('a setting of one operation is chosen beside its path, and goes back to what it inherits', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  await tree(page).getByText('/crew-members', { exact: true }).click();
  const here = page.getByRole('region', { name: 'The chosen path' });
  await here.getByLabel('Page size', { exact: true }).fill('7');
  await expect(here.getByLabel('chosen at: resource')).toBeVisible();
  await expect(here.getByLabel('Example exchange')).toContainText('"size": 7');
  const scope = here.getByRole('group', { name: 'What is looked at' });
  await scope.getByRole('button', { name: 'create' }).click();
  await here.getByLabel('Invalid body').click();
  await page.getByTitle('422', { exact: true }).click();
  await expect(here.getByLabel('chosen at: operation')).toBeVisible();
  await here.getByRole('button', { name: 'Reset Invalid body' }).click();
  await expect(here.getByLabel('chosen at: operation')).toHaveCount(0);
  await here.getByRole('button', { name: 'all of it' }).click();
  await here.getByRole('button', { name: 'Reset Page size' }).click();
  await expect(here.getByLabel('Example exchange')).not.toContainText('"size": 7');
});

test('a branch is dragged to the root with what follows told before, taken back, and moved by keyboard', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  const plans = path(page, '/shift-plans');
  const from = await plans.boundingBox();
  const root = await path(page, '/api/v1').boundingBox();
  if (from === null || root === null) throw new Error('There is nothing to drag.');
  await page.mouse.move(from.x + 70, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(from.x + 60, from.y - 20, { steps: 4 });
  await page.mouse.move(root.x + 80, root.y + 8, { steps: 4 });
  await expect(follows(page)).toContainText('If you let go at the root');
  await expect(follows(page)).toContainText('flat everything at the root');
  await expect(follows(page).getByText('3 paths removed, 3 added').first()).toBeVisible();
  await expect(tree(page).locator('.row.goes')).toHaveCount(3);
  await expect(tree(page).locator('.row.comes')).toHaveCount(3);
  await page.keyboard.press('2');
  await expect(follows(page).locator('[aria-current=true]')).toContainText('shallow');
  await page.mouse.up();
  await expect(tree(page).getByText('/shift-plans/{shiftPlanId}')).toBeVisible();
  await expect(page.getByLabel('Placements').getByText('shallow')).toBeVisible();

  await page.keyboard.press('Control+z');
  await expect(tree(page).getByText('/shift-plans/{shiftPlanId}')).toHaveCount(0);
  await page.keyboard.press('Control+Shift+z');
  await expect(tree(page).getByText('/shift-plans/{shiftPlanId}')).toBeVisible();

  await tree(page).getByText('/shift-plans/{shiftPlanId}').click();
  await page.keyboard.press('Alt+ArrowRight');
  await expect(follows(page)).toContainText('nested');
  await page.keyboard.press('Enter');
  await expect(tree(page).getByText('/{shiftPlanId}', { exact: true })).toBeVisible();
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(follows(page)).toContainText('If you let go at the root');
  await page.keyboard.press('Escape');
  await expect(follows(page)).toHaveCount(0);
  await page.keyboard.press('Alt+ArrowLeft');
  await page.keyboard.press('Enter');
  await expect(path(page, '/shift-plans')).toContainText('create');
  await expect
    .poll(async () => await isomeros.ask<object>('GET', `/api/designs/${id}/arrangements/main`))
    .toMatchObject({
      placements: { 'CrewMember>ShiftPlan:shiftPlans': 'flat' },
    });
});

test('a hidden owner leaves a finding, and its mend brings what it owns back', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  await page.getByLabel('Place of CrewMember', { exact: true }).click();
  await page.locator('.ant-select-dropdown:visible').getByText('not exposed').click();
  await expect(tree(page).getByText('/crew-members')).toHaveCount(0);
  await expect(page.getByText('Not exposed CrewMember, ShiftPlan')).toBeVisible();
  await stage(page, 'Model').click();
  const questions = page.getByRole('region', { name: 'Findings and assumptions' });
  await expect(questions).toContainText('Nothing leads to ShiftPlan');
  await questions.getByRole('button', { name: 'Place it flat' }).click();
  await expect(questions).not.toContainText('Nothing leads to ShiftPlan');
  await stage(page, 'Arrange').click();
  await expect(path(page, '/shift-plans')).toContainText('create');
});

test('a transition is an action whose link comes and goes with the state, or is carried out by change', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  const mock = await isomeros.createMock(id);
  const base = `${mock}/crew-members/1/shift-plans`;
  const json = { 'Content-Type': 'application/json' };
  const made = await fetch(base, { method: 'POST', headers: json, body: '{"day":"2026-06-14"}' });
  const plan = (await made.json()) as { id: number; links: Record<string, { href: string }> };
  expect(Object.keys(plan.links)).toContain('close');
  const moved = await fetch(`${base}/${plan.id}/close`, { method: 'POST' });
  const shut = (await moved.json()) as { state: string; links: object };
  expect([shut.state, Object.keys(shut.links).includes('close')]).toEqual(['shut', false]);

  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  await path(page, '/close').click();
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(follows(page)).toContainText('by change');
  await page.keyboard.press('Enter');
  await expect(tree(page).getByText('/close')).toHaveCount(0);
  const change = (state: string): Promise<Response> =>
    fetch(`${base}/${plan.id}`, { method: 'PATCH', headers: json, body: JSON.stringify({ state }) });
  await expect.poll(async () => (await change('open')).status).toBe(409);
});

test('another arrangement is copied, looked at on every stage, renamed and removed', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  await page.getByRole('button', { name: 'main ▾' }).click();
  await page.getByLabel('Name of another arrangement').fill('Shore office');
  await page.getByRole('button', { name: 'Copy main' }).click();
  await expect(stage(page, 'Arrange')).toContainText('2 arrangements');
  await page.getByLabel('Version', { exact: true }).fill('shore');
  await page.keyboard.press('Enter');
  await expect(tree(page).getByText('/api/shore')).toBeVisible();
  await page.getByRole('button', { name: 'Shore office ▾' }).click();
  await page.getByRole('button', { name: 'main', exact: true }).click();
  await expect(tree(page).getByText('/api/v1')).toBeVisible();
  await expect(page.getByText(/^All changes kept/)).toBeVisible();
  await page.getByRole('button', { name: 'main ▾' }).click();
  await page.getByRole('button', { name: 'Rename Shore office' }).click();
  await page.getByLabel('New name of Shore office').fill('Shore');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Shore', exact: true }).click();
  await stage(page, 'Contract').click();
  await expect(page.getByText('/api/shore').first()).toBeVisible();
  await page.getByRole('button', { name: 'Shore ▾' }).click();
  await page.getByRole('button', { name: 'Remove main' }).click();
  await expect(stage(page, 'Arrange')).toContainText('1 arrangement');
});

test('what goes in and out of a member is chosen in the grid, served by the mock, and goes back', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  const mock = await isomeros.createMock(id, { CrewMember: 2, ShiftPlan: 0 });
  const create = async (): Promise<number> => {
    const answer = await fetch(`${mock}/crew-members`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: '{"name":"Ada"}',
    });
    return answer.status;
  };
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  await path(page, '/crew-members').click();
  const grid = page.getByRole('table', { name: 'What goes in and out of CrewMember' });
  await grid.getByRole('button', { name: 'name, create: must' }).click();
  await expect(path(page, '/crew-members')).not.toContainText('create');
  const findings = page.getByRole('list', { name: 'Findings about this path' });
  await expect(findings).toContainText('No CrewMember can be created');
  await expect.poll(create).toBe(405);
  await findings.getByRole('button', { name: 'Accept it again' }).click();
  await expect(path(page, '/crew-members')).toContainText('create');
  await expect.poll(create).toBe(201);

  await grid.getByRole('button', { name: 'name, lists: yes' }).click();
  await expect(page.getByLabel('Example exchange')).not.toContainText('"name"');
  await grid.getByRole('button', { name: 'name, filter: usual' }).click();
  await page.getByRole('checkbox', { name: 'contains', exact: true }).uncheck();
  await expect(grid.getByRole('button', { name: 'name, filter: eq ne in starts' })).toBeVisible();
  await page.keyboard.press('Escape');
  await grid.getByRole('button', { name: 'name', exact: true }).click();
  await expect(page.getByRole('region', { name: 'The chosen path' })).toContainText('member.exposed');
  await expect
    .poll(async () => {
      const list = await fetch(`${mock}/crew-members?name[contains]=a`);
      return list.status;
    })
    .toBe(400);
});

test('the tree is filtered by typing and folded by keyboard', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  await path(page, '/crew-members').click();
  await page.keyboard.press('ArrowLeft');
  await expect(tree(page)).toContainText('4 below');
  await expect(tree(page).getByText('/shift-plans')).toHaveCount(0);
  await page.keyboard.press('ArrowRight');
  await expect(tree(page).getByText('/shift-plans')).toBeVisible();
  await page.getByLabel('Filter paths').fill('close');
  await expect(tree(page).getByRole('treeitem')).toHaveCount(6);
  await page.getByLabel('Filter paths').fill('no such path');
  await expect(tree(page).getByRole('treeitem')).toHaveCount(0);
});
