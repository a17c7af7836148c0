import type { Page } from '@playwright/test';
import { curl } from './support/curl.js';
import { FERRIES } from './support/ferries.js';
import { expect, press, test, type Isomeros } from './support/isomeros.js';

/** An outside client that calls until it is told to stop, or the server is away. */
class OutsideClient {
  /** The names of the routes that it was told were made. */
  readonly made: string[] = [];
  /** Whether every tenth call is a write. Undo takes back the latest write, whoever made it. */
  writes = false;
  private isOver = false;
  private readonly running: Promise<void>;

  constructor(private readonly base: string) {
    this.running = this.call();
  }

  private async call(): Promise<void> {
    for (let turn = 0; !this.isOver; turn++) {
      const isWrite = this.writes && turn % 10 === 0;
      const name = `Caller ${turn}`;
      try {
        const response = await fetch(`${this.base}${isWrite ? '/routes' : '/routes?limit=1'}`, {
          method: isWrite ? 'POST' : 'GET',
          headers: { 'Content-Type': 'application/json', 'User-Agent': 'outside/1' },
          ...(isWrite ? { body: JSON.stringify({ code: `C${turn}`, name }) } : {}),
        });
        if (response.status === 201) this.made.push(name);
        await response.text();
      } catch {
        return;
      }
    }
  }

  async stop(): Promise<void> {
    this.isOver = true;
    await this.running;
  }
}

async function openMock(page: Page, { url }: Isomeros, id: string): Promise<void> {
  await page.goto(`${url}/designs/${id}/mock`);
  await expect(page.getByTestId('base-url')).toBeVisible();
}

const pressButton = (page: Page, name: string): Promise<void> =>
  press(page.getByRole('button', { name, exact: true }).first());

/** Narrows the journal to paths with a text, by keyboard. */
async function lookFor(page: Page, path: string): Promise<void> {
  await pressButton(page, 'Journal');
  await page.getByRole('group', { name: 'Journal' }).getByLabel('Path with').focus();
  await page.keyboard.type(path);
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
}

test.use({ fresh: true });

test('the Mock stage from end to end, by keyboard, while an outside client calls', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(FERRIES);
  await isomeros.ask('PUT', `/api/designs/${id}/arrangements/beside`, { settings: { version: 'v2' } });
  const { id: mock, baseUrls } = await isomeros.ask<{
    id: string;
    baseUrls: { main: string; beside: string };
  }>('POST', '/api/mocks', {
    design: id,
    arrangements: ['main', 'beside'],
    counts: { Route: 0, Sailing: 0, Booking: 0 },
  });
  const base = baseUrls.main;
  await curl('POST', `${base}/routes`, { code: 'KS', name: 'Over the sound' });
  for (const berth of ['A1', 'A2', 'A3'])
    await curl('POST', `${base}/routes/KS/sailings`, { berth, seats: 9 });
  await curl('POST', `${base}/routes/KS/sailings/1/bookings`, { name: 'Fog and rain' });
  const outside = new OutsideClient(base);

  await openMock(page, isomeros, id);
  const other = await page.context().newPage();
  await openMock(other, isomeros, id);
  await expect(page.getByRole('group', { name: 'What is served' })).toContainText('mainbeside');
  expect(new URL(baseUrls.beside).port).toBe(new URL(base).port);

  // Records: found, followed, edited through the contract; the other window stays in step.
  for (const window of [page, other]) {
    await pressButton(window, 'Records');
    const types = window.getByRole('listbox', { name: 'Record types' });
    await expect(types.getByRole('option', { name: 'Sailing' })).toContainText('3');
    await types.focus();
    await window.keyboard.press('ArrowDown');
  }
  const sailings = page.getByRole('grid', { name: 'Sailing records' });
  await expect(sailings.getByRole('row')).toHaveCount(4);
  const find = page.getByLabel('Find Sailing');
  await find.focus();
  await page.keyboard.type('where berth = A2');
  await page.keyboard.press('Enter');
  await expect(sailings.getByRole('row')).toHaveCount(2);
  await sailings.focus();
  await page.keyboard.press('ArrowDown');
  const record = page.getByRole('region', { name: 'Record', exact: true });
  await expect(record.getByRole('heading', { name: 'Sailing 2' })).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('F2');
  await page.keyboard.press('Control+A');
  await page.keyboard.type('B9');
  await page.keyboard.press('Enter');
  await press(page.getByRole('region', { name: 'Edits' }).getByRole('button', { name: 'Write 1' }));
  await expect(page.getByRole('region', { name: 'Edits' })).toHaveCount(0);
  await expect(other.getByRole('grid', { name: 'Sailing records' }).getByText('B9')).toBeVisible();
  await pressButton(page, 'Undo');
  await expect(other.getByRole('grid', { name: 'Sailing records' }).getByText('B9')).toHaveCount(0);

  // A cascade: what would go is told before, what went after.
  await find.focus();
  await page.keyboard.press('Control+A');
  await page.keyboard.press('Delete');
  await page.keyboard.press('Enter');
  await page.getByRole('listbox', { name: 'Record types' }).focus();
  await page.keyboard.press('Home');
  const routes = page.getByLabel('Find Route');
  await routes.focus();
  await page.keyboard.type('where code = KS');
  await page.keyboard.press('Enter');
  const grid = page.getByRole('grid', { name: 'Route records' });
  await expect(grid.getByRole('row')).toHaveCount(2);
  await grid.focus();
  await page.keyboard.press('ArrowDown');
  await expect(record.locator('.removal-tree')).toContainText('sailings owned3');

  // A snapshot before, restored after.
  await pressButton(page, 'Snapshots');
  await page.getByLabel('Name of the snapshot').focus();
  await page.keyboard.type('before');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('list', { name: 'Snapshots' })).toContainText('before');
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Name of the snapshot')).toBeHidden();
  await press(record.getByRole('button', { name: 'Remove 5' }));
  await expect(grid.getByRole('row')).toHaveCount(1);

  // The journal: narrowed to what the removal did, its cascade, pinned.
  await pressButton(page, 'Exchanges');
  await lookFor(page, '/routes/KS');
  const log = page.getByRole('listbox', { name: 'Exchange log' });
  await expect(log.getByRole('option').filter({ hasText: 'DELETE' })).toBeVisible();
  await log.focus();
  await page.keyboard.press('End');
  const happened = page.getByRole('region', { name: 'What happened' });
  await expect(happened.locator('.removal-tree')).toContainText('sailings owned3');
  await press(happened.getByRole('button', { name: 'Pin', exact: true }));
  await expect(happened.getByRole('button', { name: 'Unpin' })).toBeVisible();
  await pressButton(page, 'Snapshots');
  await press(page.getByRole('button', { name: 'Restore before' }));
  await expect
    .poll(async () => (await curl('GET', `${base}/routes/KS/sailings`)).body)
    .toMatchObject({ items: [{ berth: 'A1' }, { berth: 'A2' }, { berth: 'A3' }] });

  // Faults with their badge, and off again.
  await pressButton(page, 'Faults');
  const lines = page.getByLabel('Fault rules');
  await expect(lines).toBeEnabled();
  await lines.focus();
  await page.keyboard.type('readRoute: 503 100%');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('button', { name: 'Faults 1' })).toBeVisible();
  expect((await curl('GET', `${base}/routes/KS`)).status).toBe(503);
  await expect(lines).toBeHidden();
  await press(page.getByRole('button', { name: 'Faults 1' }));
  await press(page.getByRole('button', { name: 'Stop faults' }));
  await expect.poll(async () => (await curl('GET', `${base}/routes/KS`)).status).toBe(200);

  // Load, while it is called.
  await pressButton(page, 'Load');
  await expect(page.getByRole('img', { name: /^Answers by status, a second: 2xx/ })).toBeVisible();

  // The server is killed while the journal is written: no acknowledged record is lost, and what was pinned is there.
  outside.writes = true;
  await expect.poll(() => outside.made.length).toBeGreaterThan(5);
  await isomeros.end('SIGKILL');
  await outside.stop();
  await isomeros.start();
  await openMock(page, isomeros, id);
  const now = (await page.getByTestId('base-url').textContent()) ?? '';
  const { records } = await isomeros.ask<{ records: number }>('GET', `/api/mocks/${mock}`);
  // What the snapshot brought back, and what was made after it.
  expect(records).toBeGreaterThanOrEqual(5);
  const last = outside.made.at(-1) ?? '';
  const found = await isomeros.ask<{ found: number }>(
    'GET',
    `/api/mocks/${mock}/record-types/Route/table?find=${encodeURIComponent(`where name = "${last}"`)}`,
  );
  expect([last, found.found]).toEqual([last, 1]);
  await lookFor(page, '/routes/KS');
  await page.getByLabel('Narrow the exchanges').focus();
  await page.keyboard.type('removeRoute');
  await expect(log.getByRole('option')).toHaveCount(1);
  await log.focus();
  await page.keyboard.press('Home');
  await expect(happened.getByRole('button', { name: 'Unpin' })).toBeVisible();

  // Stopped, and started again where it was.
  await pressButton(page, 'Stop');
  await expect(page.getByRole('button', { name: 'Start', exact: true })).toBeVisible();
  await expect(fetch(`${now}/routes`)).rejects.toThrow();
  await pressButton(page, 'Start');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  expect((await curl('GET', `${now}/routes/KS`)).status).toBe(200);

  // The seed plan: previewed, carried out; what takes long is cancelled in the page.
  await pressButton(page, 'Records');
  await pressButton(page, 'Import, export, seed');
  const plan = page.getByLabel('What is wanted of seed records');
  await expect(plan).toBeEnabled();
  await plan.focus();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('Route: 2\nSailing: 3 each\nBooking: 0');
  await pressButton(page, 'Preview');
  const preview = page.getByRole('region', { name: 'Preview of the seed' });
  await expect(preview).toContainText('Would give 8 records: Route 2, Sailing 6, Booking 0');
  await expect(preview.getByRole('table').getByRole('row')).toHaveCount(3);
  await press(preview.getByRole('button', { name: 'Sailing' }));
  await expect(preview.getByRole('table', { name: 'The first 5 of 6: Sailing' })).toBeVisible();
  const reset = async (): Promise<void> => {
    await pressButton(page, 'Reset to this seed');
    await press(page.getByRole('tooltip').getByRole('button', { name: 'Reset', exact: true }));
  };
  await reset();
  await expect.poll(async () => (await curl('GET', `${now}/routes`)).body).toMatchObject({ items: [{}, {}] });
  await plan.focus();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('Route: 400000\nSailing: 0\nBooking: 0');
  await reset();
  const progress = page.getByRole('status').filter({ has: page.getByRole('button', { name: 'Cancel' }) });
  await expect(progress).toContainText(/records\./);
  await press(progress.getByRole('button', { name: 'Cancel' }));
  await expect(progress).toHaveCount(0);
  await curl('POST', `${now}/routes`, { code: 'AFTER', name: 'After' });
  expect(await isomeros.ask('GET', `/api/mocks/${mock}`)).toMatchObject({ records: 9 });
});
