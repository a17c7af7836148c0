import { convention, path, TEXT, tree } from './support/arranging.js';
import { expect, test } from './support/isomeros.js';

test('what is owned is placed inside its owner, seen in the example, and written with it', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  const mock = await isomeros.createMock(id);
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  await page.getByRole('combobox', { name: 'Place of CrewMember shiftPlans' }).click();
  await page.getByRole('option', { name: /^inline/ }).click();
  await expect(tree(page).getByText('/shift-plans')).toHaveCount(0);
  await path(page, '/{crewMemberId}').click();
  await expect(page.getByLabel('Example exchange')).toContainText('"shiftPlans": [');
  const base = `${mock}/crew-members`;
  const send = (method: string, at: string, body: object): Promise<Response> =>
    fetch(base + at, {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  await expect.poll(async () => (await fetch(`${base}/1/shift-plans`)).status).toBe(404);
  const made = await send('POST', '', { name: 'Ash', shiftPlans: [{ day: '2026-01-02' }, {}] });
  const { id: crew, shiftPlans } = (await made.json()) as { id: number; shiftPlans: { id: number }[] };
  expect([made.status, shiftPlans.length]).toEqual([201, 2]);
  const changed = await send('PATCH', `/${crew}`, { shiftPlans: [{ ...shiftPlans[1], day: '2026-01-03' }] });
  expect(await changed.json()).toMatchObject({ shiftPlans: [{ id: shiftPlans[1]?.id, day: '2026-01-03' }] });
});

test("an operation of one's own is written in a line, told what is wrong with it, and served", async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  const mock = await isomeros.createMock(id);
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  await path(page, '/shift-plans').click();
  await page.getByRole('button', { name: 'Add an operation' }).click();
  await page.getByLabel('Name of the new operation').fill('newest');
  await page.keyboard.press('Enter');
  const line = page.getByLabel('What the new operation does');
  await line.fill('first 2 where weight = 1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('ShiftPlan has no weight. (column 15)');
  await expect(tree(page).getByText('/newest')).toHaveCount(0);
  await line.fill('first 2 where state = open by day desc');
  await page.keyboard.press('Enter');
  await expect(tree(page).getByText('/newest')).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.getByLabel('Name of newest').fill('latestOpen');
  await page.keyboard.press('Enter');
  await path(page, '/latest-open').click();
  await expect(page.getByLabel('Example exchange')).toContainText('/latest-open HTTP/1.1');
  await path(page, '/{shiftPlanId}').click();
  await page.getByRole('button', { name: 'Add an action' }).click();
  await page.getByLabel('Name of the new action').fill('settle');
  await page.getByLabel('What the new action does').fill('when state = open set day = now');
  await page.keyboard.press('Enter');
  const base = `${mock}/crew-members/1/shift-plans`;
  await expect.poll(async () => (await fetch(`${base}/latest-open`)).status).toBe(200);
  const { items } = (await (await fetch(`${base}/latest-open`)).json()) as { items: { state: string }[] };
  expect(items.every(({ state }) => state === 'open')).toBe(true);
  await page.getByRole('button', { name: 'Remove settle' }).click();
  await expect(tree(page).getByText('/settle')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(tree(page).getByText('/settle')).toBeVisible();
  await expect(page.getByText('All changes kept')).toBeVisible();
});

test('credentials are asked for where the arrangement says so, and each status tells why', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  const mock = await isomeros.createMock(id);
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  await page.getByLabel('Find a setting').fill('credentials');
  await convention(page, 'Credentials').getByRole('combobox').click();
  await page.getByTitle('bearer', { exact: true }).click();
  await path(page, '/crew-members').click();
  await expect(page.getByLabel('Example exchange')).toContainText('Authorization: Bearer user-secret');
  const status = async (token: string): Promise<number> =>
    (
      await fetch(`${mock}/crew-members`, {
        headers: { Authorization: `Bearer ${token}` },
      })
    ).status;
  await expect.poll(() => status('nobody')).toBe(401);
  expect(await status('user-secret')).toBe(200);
  const told = (await (await fetch(`${mock}/crew-members`)).json()) as { detail: string };
  expect(told.detail).toContain('Authorization: Bearer user-secret');
  await page.getByRole('group', { name: 'What is looked at' }).getByRole('button', { name: /list/ }).click();
  await page.getByRole('button', { name: 'Why' }).click();
  await page.getByRole('list', { name: 'Statuses' }).getByText('401').click();
  await expect(page.getByRole('list', { name: 'Statuses' })).toContainText('security.authenticated');
  await page.getByRole('link', { name: /Mock/ }).click();
  await page.getByRole('button', { name: 'user:user-secret' }).click();
  await expect(page.getByRole('code')).toHaveText('Authorization: Bearer user-secret');
});

test('a query with inputs and a computed attribute, each added by its line, are served', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(`design "Departures"

entity Sailing
  capacity: integer, required
  departsAt: instant, required

entity Booking
  seats: integer, required

each Sailing owns many Booking as bookings, back as sailing
`);
  const mock = await isomeros.createMock(id, { Sailing: 0 });
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  const editor = page.getByLabel('Notation of the model');
  await editor.getByText('departsAt').click();
  await page.keyboard.press('End');
  await page.keyboard.type('\nleft: integer, computed capacity - sum of bookings.seats ');
  await expect(page.getByText('All changes kept')).toBeVisible();
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  await path(page, '/sailings').click();
  await page.getByRole('button', { name: 'Add an operation' }).click();
  await page.getByLabel('Name of the new operation').fill('departures');
  const line = page.getByLabel('What the new operation does');
  await line.fill('first 20 where left > 3 and departsAt >= input since by departsAt');
  await page.keyboard.press('Enter');
  const findings = page.getByRole('list', { name: 'Findings about departures' });
  await expect(findings).toContainText('left is computed from other records');
  await page.getByLabel('What departures does').fill('one where departsAt >= input since by departsAt');
  await page.keyboard.press('Enter');
  await expect(findings).toHaveCount(0);
  await expect(path(page, '/departures')).toContainText('read');
  const send = async (at: string, body: object): Promise<unknown> => {
    const headers = { 'Content-Type': 'application/json' };
    return (await fetch(mock + at, { method: 'POST', headers, body: JSON.stringify(body) })).json();
  };
  for (const day of ['01', '02'])
    await send('/sailings', { capacity: 10, departsAt: `2026-07-${day}T08:00:00Z` });
  await send('/sailings/2/bookings', { seats: 4 });
  const asked = async (query: string): Promise<Response> => fetch(`${mock}/sailings/departures${query}`);
  await expect.poll(async () => (await asked('?since=2026-07-01T09:00:00Z')).status).toBe(200);
  expect(await (await asked('?since=2026-07-01T09:00:00Z')).json()).toMatchObject({ id: 2, left: 6 });
  expect((await asked('')).status).toBe(400);
  expect((await asked('?since=2027-01-01T00:00:00Z')).status).toBe(404);
});
