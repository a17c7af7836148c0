import type { Page } from '@playwright/test';
import { expect, press, stage, test, type Isomeros } from './support/isomeros.js';

const TEXT = `entity Route
  name: text(1..20), required "As printed on the ticket"

entity Sailing
  places: integer(1..14), required

each Route owns many Sailing
`;

const kept = (page: Page): Promise<void> => expect(page.getByText('All changes kept')).toBeVisible();

const opened = async (page: Page, isomeros: Isomeros, id: string, operation: string): Promise<void> => {
  await page.goto(`${isomeros.url}/designs/${id}/contract?operation=${operation}`);
  await expect(page.getByRole('heading', { name: operation, exact: true })).toBeVisible();
};

const description = (page: Page): ReturnType<Page['getByRole']> =>
  page.getByRole('textbox', { name: 'Description', exact: true });

test('an operation is found by typing and documented, another ends and says so, a third is left unpublished, and a rename loses nothing', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/contract`);
  await page.getByLabel('Narrow the operations').fill('routes 201');
  await expect(page.getByRole('status').filter({ hasText: ' of ' })).toHaveText('2 of 13');
  await page.getByLabel('Narrow the operations').fill('');
  await page.getByRole('button', { name: /listRoutes/ }).click();
  await expect(page.getByRole('heading', { name: 'listRoutes', exact: true })).toBeVisible();

  await page.getByLabel('Summary').fill('All that sails');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Write: Description' }).click();
  await page.keyboard.type('In the order of their *ids*. See [readR');
  await page.keyboard.press('Enter');
  await expect(description(page)).toHaveValue('In the order of their *ids*. See [readRoute]');
  await expect(page.getByRole('region', { name: 'How it reads' }).locator('em')).toHaveText('ids');
  await page.keyboard.press('Control+Enter');
  await press(page.getByRole('button', { name: 'Write: Description' }));
  await page.keyboard.type('something else');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Write: Description' })).toBeFocused();
  await expect(page.getByRole('button', { name: 'readRoute', exact: true })).toBeVisible();
  await press(page.getByRole('button', { name: 'add a note on ?page=' }));
  await page.keyboard.type('Pages are short.');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Note on ?page=: Pages are short.' })).toBeVisible();
  await expect(page.getByText('documented 1 of 13')).toBeVisible();
  await kept(page);

  await opened(page, isomeros, id, 'removeRoute');
  await page.getByLabel('Deprecated from').fill('2027-02-31');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Expected a date');
  await page.getByLabel('Deprecated from').fill('2027-01-31');
  await page.keyboard.press('Enter');
  await expect(
    page.getByRole('button', { name: /removeRoute, .*, deprecated from 2027-01-31/ }),
  ).toBeVisible();
  await page.getByLabel('To be used in its place').fill('changeRou');
  await page.keyboard.press('Enter');
  await kept(page);

  await opened(page, isomeros, id, 'replaceRoute');
  await page.getByRole('checkbox', { name: 'in published documents' }).uncheck();
  await expect(page.getByRole('button', { name: /replaceRoute, .*in no published document/ })).toBeVisible();
  await expect(page.getByText('unpublished 1')).toBeVisible();
  await kept(page);

  // The entity is called otherwise; what was said of it says its new name.
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await isomeros.ask('PUT', `/api/designs/${id}/model`, { text: TEXT.replaceAll('Route', 'Line') });
  await opened(page, isomeros, id, 'listLines');
  await expect(page.getByRole('button', { name: 'readLine', exact: true })).toBeVisible();
  await expect(page.getByLabel('Summary')).toHaveValue('All that sails');
  await expect(page.getByRole('button', { name: 'Note on ?page=: Pages are short.' })).toBeVisible();

  const mock = await isomeros.createMock(id, { Line: 1 });
  const ended = await fetch(`${mock}/lines/1`, { method: 'DELETE' });
  expect(ended.headers.get('deprecation')).toBe('@1801353600');
  expect(ended.headers.get('link')).toContain('rel="deprecation"');
  expect(await (await fetch(`${mock}/-/operations/removeLine`)).text()).toContain('Use changeLine');
  const published = (await (await fetch(`${mock}/-/openapi.json`)).json()) as {
    paths: Record<string, Record<string, { summary: string; description?: string }>>;
  };
  expect(published.paths['/lines']?.['get']).toMatchObject({
    summary: 'All that sails',
    description: 'In the order of their *ids*. See [readLine]',
  });
  expect(Object.keys(published.paths['/lines/{lineId}'] ?? {})).not.toContain('put');
});

test('an example is kept, written, taken over from an exchange, and told of once it does not fit', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await opened(page, isomeros, id, 'createRoute');
  const example = page.getByRole('region', { name: 'Example' });
  await example.getByRole('button', { name: 'Keep it' }).click();
  await page.getByLabel('Name of the example').fill('north');
  await page.keyboard.press('Enter');
  await expect(example.getByRole('button', { name: 'north 201' })).toHaveAttribute('aria-pressed', 'true');
  await example.getByRole('button', { name: 'Write it' }).click();
  await page
    .getByRole('form', { name: 'The example north' })
    .getByLabel('Body')
    .fill('{"name": "A name that is longer than twenty"}');
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(example.getByRole('button', { name: 'north 400' })).toBeVisible();
  await expect(example).toContainText('HTTP/1.1 400 Bad Request');
  await kept(page);

  const mock = await isomeros.createMock(id, { Route: 3 });
  await fetch(`${mock}/routes/2`);
  await fetch(`${mock}/routes/2`, { method: 'DELETE' });
  await page.goto(`${isomeros.url}/designs/${id}/mock`);
  await page.getByRole('listbox', { name: 'Exchange log' }).getByRole('option').last().click();
  await page.getByRole('button', { name: 'Keep as an example' }).click();
  await page.getByLabel('Name of the example').fill('the second');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Kept as the second, an example of removeRoute.')).toBeVisible();
  await kept(page);
  await opened(page, isomeros, id, 'removeRoute');
  await example.getByRole('button', { name: 'the second 204' }).click();
  await expect(example).toContainText('DELETE /api/v1/routes/2 HTTP/1.1');
  await expect(example).toContainText('HTTP/1.1 204 No Content');

  // The model goes another way; what was kept is told of, and goes by its button.
  await isomeros.ask('PUT', `/api/designs/${id}/model`, { text: TEXT.replace('text(1..20)', 'integer') });
  await page.reload();
  const finding = page
    .getByRole('listitem')
    .filter({ hasText: 'The example the second does not fit any more' });
  await expect(finding).toContainText('its records do not fit the model any more');
  await finding.getByRole('button', { name: 'Remove the example' }).click();
  await expect(finding).toHaveCount(0);
});

test('the API says where it is served, what its tags are, and what its errors say', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/contract`);
  await page.getByRole('button', { name: 'About the API' }).click();
  await page.getByLabel('Name of another server').fill('production');
  await page.getByLabel('address of production').fill('https://{region}.api.example');
  await page.keyboard.press('Enter');
  await page.getByLabel('variables of production').fill('region: eu, us');
  await page.keyboard.press('Enter');
  await page.getByLabel('Name of the tag Routes').fill('Lines');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Earlier: Lines' }).click();
  await page.getByLabel('What an error says of Sailing.places').fill('A sailing takes 14 at most.');
  await page.keyboard.press('Enter');
  await page.getByLabel('Title of not-found').fill('No such thing');
  await page.keyboard.press('Enter');
  await kept(page);

  await page.getByText('tag', { exact: true }).click();
  await expect(page.getByRole('row').filter({ hasText: 'of 6' }).first()).toContainText('Lines');

  await stage(page, 'Mock').click();
  const mock = await isomeros.createMock(id, { Route: 1 });
  const refused = await fetch(`${mock}/routes/1/sailings`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ places: 15 }),
  });
  expect(await refused.text()).toContain('A sailing takes 14 at most.');
  expect(await (await fetch(`${mock}/routes/99`)).json()).toMatchObject({ title: 'No such thing' });
  const published = (await (await fetch(`${mock}/-/openapi.json`)).json()) as {
    servers: readonly object[];
    tags: readonly { name: string }[];
  };
  expect(published.servers[1]).toMatchObject({ variables: { region: { default: 'eu' } } });
  expect(published.tags.map(({ name }) => name)).toEqual(['Lines', 'Entry', 'Sailings']);
});

test('hostile texts are shown as text, wherever they are written', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign(TEXT);
  const hostile =
    '</script><img src=x onerror="document.title=\'taken\'"> [a](javascript:alert(1)) ![b](http://127.0.0.1:1/x.png)';
  await isomeros.ask('PUT', `/api/designs/${id}/arrangements/main`, {
    settings: {},
    documentation: {
      api: { api: { title: hostile.slice(0, 100), description: hostile } },
      operation: { 'Route:list': { summary: hostile, description: hostile, externalText: hostile } },
      parameter: { page: { description: hostile } },
      tag: { Route: { title: hostile.slice(0, 40), description: hostile } },
    },
  });
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  await opened(page, isomeros, id, 'listRoutes');
  await expect(page.locator('.common-mark')).toContainText('<img src=x onerror=');
  await page.getByText('tag', { exact: true }).click();
  await page.getByRole('button', { name: 'About the API' }).click();
  await expect(page.locator('.common-mark').first()).toContainText('[a](javascript:alert(1))');
  await expect(page.locator('.common-mark img, .common-mark script, a[href^="javascript"]')).toHaveCount(0);
  expect(await page.title()).not.toBe('taken');
  expect(asked.filter((url) => !url.startsWith(isomeros.url) && !url.startsWith('data:'))).toEqual([]);
});
