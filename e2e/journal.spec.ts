import { readFile } from 'node:fs/promises';
import { expect, press, test } from './support/isomeros.js';

const TEXT = `entity Route
  name: text(1..60), required

entity Sailing
  berth: text(1..4)

each Route owns many Sailing as sailings
`;

test('the journal outlasts a restart; it is looked through, pinned, exported and cleared by keyboard', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  const base = await isomeros.createMock(id, { Route: 2, Sailing: 0 });
  const send = (method: string, path: string, client: string, body?: object): Promise<Response> =>
    fetch(`${base}${path}`, {
      method,
      headers: { 'User-Agent': client, 'Content-Type': 'application/json' },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  await send('PATCH', '/routes/1', 'booking-web/2', { name: 'Over the sound' });
  await send('GET', '/routes?size=1', 'curl/8');
  await send('GET', '/nowhere', 'curl/8');
  await page.goto(`${isomeros.url}/designs/${id}/mock`);
  const rows = page.getByRole('listbox', { name: 'Exchange log' }).getByRole('option');
  await expect(rows).toHaveCount(3);
  await isomeros.end('SIGTERM');
  await isomeros.start();
  await page.reload();
  await expect(rows).toHaveCount(3);
  const happened = page.getByRole('region', { name: 'What happened' });
  await expect(happened).toContainText('No path of the contract matches');

  await press(page.getByRole('button', { name: 'Journal', exact: true }));
  const menu = page.getByRole('group', { name: 'Journal' });
  await expect(menu).toContainText('in the database');
  await menu.getByLabel('Path with').fill('/routes');
  await press(menu.getByLabel('Path with'));
  await expect(rows).toHaveCount(2);
  await press(menu.getByLabel('Status'), 'ArrowDown');
  await page.keyboard.type('');
  await page.getByTitle('2xx').click();
  await expect(rows).toHaveCount(2);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    press(menu.getByRole('link', { name: 'Export as HAR' })),
  ]);
  expect(download.suggestedFilename()).toBe('exchanges.har');
  const archive = JSON.parse(await readFile(await download.path(), 'utf8')) as {
    log: { version: string; entries: { request: { method: string; url: string } }[] };
  };
  expect(archive.log.version).toBe('1.2');
  expect(archive.log.entries.map(({ request }) => [request.method, request.url])).toEqual([
    ['PATCH', `${base}/routes/1`],
    ['GET', `${base}/routes?size=1`],
  ]);
  await page.keyboard.press('Escape');
  await press(page.getByRole('button', { name: /^status 2xx/ }));
  await press(page.getByRole('button', { name: 'As they come', exact: true }).first());
  await expect(rows).toHaveCount(3);

  await page.getByRole('listbox', { name: 'Exchange log' }).focus();
  await page.keyboard.press('Home');
  await expect(happened.getByRole('heading', { name: 'What happened in 1' })).toBeVisible();
  await press(happened.getByRole('button', { name: 'Pin', exact: true }));
  await expect(happened.getByRole('button', { name: 'Unpin' })).toBeVisible();
  await press(page.getByRole('button', { name: 'Journal', exact: true }));
  await press(menu.getByRole('button', { name: 'Clear' }));
  await press(page.getByRole('tooltip').getByRole('button', { name: 'Clear' }).last());
  await expect(rows).toHaveCount(1);

  await press(page.getByRole('button', { name: 'Records', exact: true }));
  const routes = page.getByRole('grid', { name: 'Route records' });
  await expect(routes.getByRole('row')).toHaveCount(3);
  await routes.focus();
  await page.keyboard.press('ArrowDown');
  const record = page.getByRole('region', { name: 'Record', exact: true });
  await press(record.getByRole('button', { name: '1', exact: true }));
  await expect(happened.getByRole('heading', { name: 'What happened in 1' })).toBeVisible();

  // Somebody else may have had the port meanwhile.
  const now = (await page.getByTestId('base-url').textContent()) ?? '';
  expect((await fetch(`${now}/routes`)).status).toBe(200);
  await press(page.getByRole('button', { name: 'Load', exact: true }));
  const load = page.getByRole('region', { name: 'Load' });
  await expect(load.getByRole('img', { name: /^Answers by status, a second: 2xx/ })).toBeVisible();
});

test('where more happens than can be followed the page says so, and stays quick', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  const base = await isomeros.createMock(id, { Route: 2, Sailing: 0 });
  await page.goto(`${isomeros.url}/designs/${id}/mock`);
  await expect(page.getByText('No exchange yet.')).toBeVisible();
  let isOver = false;
  const callers = Array.from({ length: 8 }, async () => {
    while (!isOver) await (await fetch(`${base}/routes`)).text();
  });
  await expect(page.getByRole('status').filter({ hasText: 'more than can be followed' })).toBeVisible();
  const rows = page.getByRole('listbox', { name: 'Exchange log' }).getByRole('option');
  expect(await rows.count()).toBeLessThanOrEqual(300);
  await page.getByLabel('Narrow the exchanges').fill('listRoutes 200');
  await expect(rows.first()).toContainText('listRoutes');
  isOver = true;
  await Promise.all(callers);
});
