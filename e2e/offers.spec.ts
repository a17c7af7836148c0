import type { Page } from '@playwright/test';
import { path, tree } from './support/arranging.js';
import { expect, test, type Isomeros } from './support/isomeros.js';

const TEXT = `design "Offered"

entity Route
  name: text(1..60), required

entity Sailing
  berth: integer

entity Vessel
  name: text(1..60), required

each Route owns many Sailing as sailings, back as route
`;

/** Opens a design on Arrange, its mock running; returns where that is. */
async function open(page: Page, isomeros: Isomeros): Promise<string> {
  const id = await isomeros.createDesign(TEXT);
  const mock = await isomeros.createMock(id, { Route: 2, Sailing: 2, Vessel: 2 });
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  return mock;
}

const offered = (page: Page): ReturnType<Page['getByRole']> =>
  page.getByRole('region', { name: 'Operations of the path' });

test('operations are left out by a key and by a press, stay struck in the tree, and answer 405', async ({
  page,
  isomeros,
}) => {
  const mock = await open(page, isomeros);
  await path(page, '/{vesselId}').click();
  await tree(page).focus();
  await page.keyboard.press('2');
  await expect(page.getByRole('button', { name: 'Offer replace again' })).toBeVisible();
  const put = (): Promise<Response> =>
    fetch(`${mock}/vessels/1`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: '{"name":"Tern"}',
    });
  await expect.poll(async () => (await put()).status).toBe(405);
  expect((await put()).headers.get('allow')).toBe('GET, HEAD, PATCH, DELETE, OPTIONS');
  await path(page, '/{vesselId}').getByRole('button', { name: 'Leave out remove, removeVessel' }).click();
  await expect(page.getByRole('button', { name: 'Offer remove again' })).toBeVisible();
  await expect(offered(page).getByRole('checkbox', { name: 'remove' })).not.toBeChecked();
  await page.getByRole('button', { name: 'Offer replace again' }).click();
  await expect(page.getByRole('button', { name: 'Leave out replace, replaceVessel' })).toBeVisible();
  await tree(page).focus();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Leave out remove, removeVessel' })).toBeVisible();
  await expect.poll(async () => (await put()).status).toBe(200);
});

test('a branch becomes read only in one step, told before it is taken, by keys alone', async ({
  page,
  isomeros,
}) => {
  const mock = await open(page, isomeros);
  await path(page, '/routes').click();
  await offered(page).getByRole('radio', { name: 'this path' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(offered(page).getByRole('radio', { name: 'its branch' })).toBeChecked();
  await offered(page).getByRole('button', { name: 'read only' }).focus();
  await page.keyboard.press('Enter');
  const told = page.getByRole('region', { name: 'What would follow' });
  await expect(told).toContainText('8 operations removed, 0 added');
  await expect(told).toContainText('createRoute, replaceRoute');
  const struck = tree(page).locator('.left-out');
  await expect(struck).toHaveCount(0);
  await expect(told.getByRole('button', { name: 'Take it' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(struck).toHaveText(
    Array.from({ length: 2 }, () => ['create', 'replace', 'change', 'remove'])
      .flat()
      .map((verb) => new RegExp(verb)),
  );
  await expect(path(page, '/vessels')).toContainText('create');
  const status = async (method: string, at: string): Promise<number> =>
    (await fetch(mock + at, { method })).status;
  await expect.poll(() => status('PATCH', '/routes/1')).toBe(405);
  expect(await status('GET', '/routes/1/sailings')).toBe(200);
  expect(await (await fetch(`${mock}/routes/1`)).json()).toHaveProperty('links.sailings');
  const document = (await (await fetch(`${mock}/-/openapi.json`)).json()) as {
    paths: Record<string, object>;
  };
  expect(Object.keys(document.paths['/routes/{routeId}'] ?? {})).toEqual(['parameters', 'get']);
});

test('the filters of one list are spelled by the house, by keys alone, and asked for so', async ({
  page,
  isomeros,
}) => {
  const mock = await open(page, isomeros);
  await path(page, '/routes').click();
  const filters = page.getByRole('region', { name: 'The chosen path' }).getByRole('combobox', {
    name: 'Filters',
    exact: true,
  });
  await filters.focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('option', { name: 'a__gte=5' })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  const status = async (query: string): Promise<number> => (await fetch(mock + query)).status;
  await expect.poll(() => status('/routes?name__starts=A')).toBe(200);
  expect(await status('/routes?name%5Bstarts%5D=A')).toBe(400);
  expect(await status('/vessels?name%5Bstarts%5D=A')).toBe(200);
});

test('one list goes on by cursor and another is whole, each told before it is taken, by keys alone', async ({
  page,
  isomeros,
}) => {
  const mock = await open(page, isomeros);
  const list = page.getByRole('region', { name: 'How the list is answered' });
  const told = page.getByRole('region', { name: 'What would follow' });
  const take = async (bundle: string, breaks: string): Promise<void> => {
    await list.getByRole('button', { name: bundle }).focus();
    await page.keyboard.press('Enter');
    await expect(told).toContainText(breaks);
    await expect(told.getByRole('button', { name: 'Take it' })).toBeFocused();
    await page.keyboard.press('Enter');
    await expect(told).toHaveCount(0);
  };
  await path(page, '/routes').click();
  await take('endless, by cursor', 'Pages are told by cursor, not by number.');
  await path(page, '/vessels').click();
  await take('small and whole', 'Pages are told by none, not by number.');
  const pageOf = async (at: string): Promise<unknown> =>
    ((await (await fetch(mock + at)).json()) as { page?: object }).page;
  await expect.poll(() => pageOf('/routes?limit=1')).toMatchObject({ limit: 1, next: expect.any(String) });
  await expect.poll(() => pageOf('/vessels')).toBeUndefined();
  expect(await pageOf('/routes/1/sailings')).toMatchObject({ number: 1 });
});

test('a member is called otherwise, by keys alone, where it is sent, answered and asked for', async ({
  page,
  isomeros,
}) => {
  const mock = await open(page, isomeros);
  await path(page, '/vessels').click();
  const grid = page.getByRole('table', { name: 'What goes in and out of Vessel' });
  await grid.getByRole('button', { name: 'name', exact: true }).focus();
  await page.keyboard.press('Enter');
  const name = page.getByRole('textbox', { name: 'name is called' });
  await expect(name).toBeFocused();
  await name.fill('ship title');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Expected letters, digits');
  await name.fill('title');
  await page.keyboard.press('Enter');
  await expect(grid.getByRole('button', { name: 'title', exact: true })).toBeVisible();
  await expect(page.getByLabel('Example exchange')).toContainText('"title"');
  const send = async (body: string): Promise<unknown> => {
    const headers = { 'Content-Type': 'application/json' };
    return (await fetch(`${mock}/vessels`, { method: 'POST', headers, body })).json();
  };
  await expect.poll(() => send('{"title":"Tern"}')).toMatchObject({ title: 'Tern' });
  expect(await send('{"name":"Tern"}')).toMatchObject({
    errors: [{ pointer: '/name' }, { pointer: '/title' }],
  });
  const found: unknown = await (await fetch(`${mock}/vessels?title=Tern`)).json();
  expect(found).toMatchObject({ items: [{ title: 'Tern' }] });
  await name.fill('');
  await page.keyboard.press('Enter');
  await expect.poll(() => send('{"name":"Tern"}')).toMatchObject({ name: 'Tern' });
});
