import { FERRIES } from './support/ferries.js';
import { expect, press, test, type Isomeros } from './support/isomeros.js';

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
  await page.getByRole('button', { name: 'Import, export, seed' }).click();
  const records = page.getByRole('region', { name: 'Export', exact: true });
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
  await press(page.getByRole('button', { name: 'Preview', exact: true }));
  await expect(page.getByRole('status').filter({ hasText: 'Would give' })).toHaveText(
    'Would give 15 records: Route 5, Sailing 10',
  );
  await expect(records.getByRole('row', { name: 'Sailing' })).toContainText('0');
  await reset();
  await expect(records.getByRole('row', { name: 'Sailing' })).toContainText('10');
  expect(await (await fetch(`${base}/routes?state=open`)).json()).toMatchObject({ items: [] });
});

/** Makes records as an outside client does. */
const poster =
  (base: string) =>
  async (path: string, body: object): Promise<void> => {
    const response = await fetch(`${base}${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    expect(response.status).toBe(201);
  };

/** A mock with a route of three sailings. */
async function ferries(
  isomeros: Isomeros,
): Promise<{ readonly id: string; readonly base: string; readonly post: ReturnType<typeof poster> }> {
  const id = await isomeros.createDesign(FERRIES);
  const base = await isomeros.createMock(id, { Route: 0, Sailing: 0, Booking: 0 });
  const post = poster(base);
  await post('/routes', { code: 'KS', name: 'Over the sound' });
  for (const seats of [30, 0, 120]) await post('/routes/KS/sailings', { seats });
  return { id, base, post };
}

test('records are looked through by keyboard: narrowed in words, sorted, followed, and as they change', async ({
  page,
  isomeros,
}) => {
  const { id, base, post } = await ferries(isomeros);
  await post('/routes/KS/sailings/1/bookings', { name: 'Ann' });
  await page.goto(`${isomeros.url}/designs/${id}/mock`);
  await press(page.getByRole('button', { name: 'Records', exact: true }));
  const types = page.getByRole('listbox', { name: 'Record types' });
  await expect(types.getByRole('option')).toHaveText(['Route1', 'Sailing3', 'Booking1']);
  await types.focus();
  await page.keyboard.press('ArrowDown');
  const grid = page.getByRole('grid', { name: 'Sailing records' });
  const rows = grid.getByRole('row');
  await expect(rows).toHaveCount(4);

  await press(page.getByRole('columnheader', { name: 'seats' }).getByRole('button'));
  await expect(rows.nth(1)).toContainText('planned');
  await expect(grid.getByRole('columnheader', { name: 'seats' })).toHaveAttribute('aria-sort', 'ascending');
  await expect(rows.nth(3)).toContainText('120');

  const find = page.getByLabel('Find Sailing');
  await find.fill('where se');
  await expect(page.getByText('seats', { exact: true }).last()).toBeVisible();
  await find.fill('where seats > 0 and state = planned');
  await press(find);
  await expect(rows).toHaveCount(3);
  await expect(page.getByRole('region', { name: 'Sailing', exact: true })).toContainText('2 of 3');
  await find.fill('where colour = red');
  await press(find);
  await expect(page.getByRole('alert')).toHaveText('Sailing has no colour. (column 7)');
  await find.fill('');
  await press(find);
  await expect(rows).toHaveCount(4);

  await post('/routes/KS/sailings', { seats: 5 });
  await expect(rows).toHaveCount(5);
  await expect(types.getByRole('option', { name: 'Sailing' })).toContainText('4');

  await grid.focus();
  await page.keyboard.press('ArrowDown');
  const record = page.getByRole('region', { name: 'Record', exact: true });
  await expect(record.getByRole('heading', { name: 'Sailing 2' })).toBeVisible();
  await expect(record).toContainText('depart');
  await expect(record).toContainText('createSailing');
  await press(record.getByRole('button', { name: 'KS Over the sound' }));
  await expect(record.getByRole('heading', { name: 'Route KS' })).toBeVisible();
  await expect(page.getByRole('grid', { name: 'Route records' })).toBeVisible();
  const removed = record.locator('.removal-tree');
  await expect(removed).toContainText('sailings owned4');
  await expect(removed).toContainText('bookings owned1');

  await press(page.getByRole('button', { name: 'Exchanges', exact: true }));
  expect((await fetch(`${base}/routes/KS`, { method: 'DELETE' })).status).toBe(204);
  const happened = page.getByRole('region', { name: 'What happened' });
  await expect(happened.getByRole('heading', { name: /^What happened in/ })).toBeVisible();
  const parts = happened.getByRole('list', {
    name: 'Operations still possible after each part of the target',
  });
  await expect(parts.getByRole('listitem').last()).toHaveText('DELETE1');
  await expect(happened.locator('.removal-tree')).toContainText('sailings owned4');
  await press(happened.getByText('6 removed records, one by one'));
  await expect(happened.getByText('Booking 1')).toBeVisible();
});

test('records are edited by keyboard, through the contract and around it, and one undo takes a write back', async ({
  page,
  isomeros,
}) => {
  const { id, base } = await ferries(isomeros);
  const berths = async (): Promise<unknown[]> => {
    const { items } = (await (await fetch(`${base}/routes/KS/sailings`)).json()) as {
      items: { berth: unknown }[];
    };
    return items.map(({ berth }) => berth);
  };
  await page.goto(`${isomeros.url}/designs/${id}/mock`);
  const other = await page.context().newPage();
  await other.goto(`${isomeros.url}/designs/${id}/mock`);
  for (const window of [page, other]) {
    await press(window.getByRole('button', { name: 'Records', exact: true }));
    const types = window.getByRole('listbox', { name: 'Record types' });
    await expect(types.getByRole('option', { name: 'Sailing' })).toContainText('3');
    await types.focus();
    await window.keyboard.press('ArrowDown');
    await expect(window.getByRole('grid', { name: 'Sailing records' }).getByRole('row')).toHaveCount(4);
  }
  const grid = page.getByRole('grid', { name: 'Sailing records' });
  const rows = grid.getByRole('row');
  await expect(rows).toHaveCount(4);
  await grid.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await page.keyboard.type('PIER2');
  await page.keyboard.press('Tab');
  await page.keyboard.type('31');
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Delete');
  const edits = page.getByRole('region', { name: 'Edits' });
  await expect(edits).toContainText('2 cells changed, 1 row removed');
  await press(page.getByRole('button', { name: 'Add', exact: true }));
  await page.keyboard.type('B7');
  await page.keyboard.press('Tab');
  await page.keyboard.type('9');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Tab');
  await page.keyboard.type('KS');
  await page.keyboard.press('Enter');
  await press(edits.getByRole('button', { name: 'Write 3' }));
  await expect(rows.nth(2).getByRole('alert')).toHaveText(
    '400 Expected text of 1 to 4 characters. berth: text(1..4)',
  );
  await expect(edits).toContainText('1 refused');
  expect(await berths()).toEqual([null, null, null]);

  await grid.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('F2');
  await page.keyboard.type('P2');
  await page.keyboard.press('Enter');
  await press(edits.getByRole('button', { name: 'Write 3' }));
  await expect(edits).toHaveCount(0);
  expect(await berths()).toEqual(['P2', null, 'B7']);
  await expect(other.getByRole('grid', { name: 'Sailing records' }).getByText('B7')).toBeVisible();
  await press(page.getByRole('button', { name: 'Undo' }));
  for (const window of [page, other])
    await expect(window.getByRole('grid', { name: 'Sailing records' }).getByText('B7')).toHaveCount(0);
  expect(await berths()).toEqual([null, null, null]);

  await grid.focus();
  await page.keyboard.press('Home');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await page.keyboard.type('departed');
  await page.keyboard.press('Enter');
  await edits.getByText('around it').click();
  const changed = await fetch(`${base}/routes/KS/sailings/1`, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ seats: 77 }),
  });
  expect(changed.status).toBe(200);
  await press(edits.getByRole('button', { name: 'Write 1' }));
  await expect(rows.nth(1).getByRole('alert')).toContainText('It was changed meanwhile');
  await expect(rows.nth(1)).toContainText('77');
  await grid.focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('F2');
  await page.keyboard.press('Enter');
  await press(edits.getByRole('button', { name: 'Write 1' }));
  await expect(edits).toHaveCount(0);
  await expect(rows.nth(1)).toContainText('departed');

  const record = page.getByRole('region', { name: 'Record', exact: true });
  await press(record.getByRole('button', { name: 'Remove 1' }));
  await expect(rows).toHaveCount(3);
  await press(page.getByRole('button', { name: 'Exchanges', exact: true }));
  await expect(page.getByRole('region', { name: 'What happened' })).toContainText('removeSailing');
});
