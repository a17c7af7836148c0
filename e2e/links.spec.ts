import { path } from './support/arranging.js';
import { curl } from './support/curl.js';
import { expect, press, test } from './support/isomeros.js';

const TEXT = `design "Linked"

entity Crew
  name: text(1..20), required

entity Sailing
  berth: text(1..4)

entity Booking
  seats: integer(1..9), required

each Sailing refers to optional Crew as master, back as commands
each Sailing refers to optional Crew as pilot, back as pilotings
each Sailing owns many Booking as bookings
`;

test('links are renamed, put under one relation and left out, seen in the example and at the mock', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  await path(page, '/{sailingId}').getByText('/{sailingId}', { exact: true }).click();
  const links = page.getByRole('button', { name: 'Links' });
  await links.click();
  const example = page.getByLabel('Example exchange');
  const relation = (of: string) => page.getByLabel(`Relation of ${of}`);
  const rename = async (of: string, to: string): Promise<void> => {
    await relation(of).fill(to);
    await page.keyboard.press('Enter');
  };
  await rename('Sailing>Crew:master', 'Captain');
  await expect(page.getByRole('alert')).toHaveText(/small letter/);
  await rename('Sailing>Crew:master', 'crew');
  await rename('Sailing>Crew:pilot', 'crew');
  await expect(example).toContainText('"crew": [');
  await page.getByRole('checkbox', { name: 'bookings in lists' }).uncheck();
  await page.getByRole('checkbox', { name: 'bookings in items' }).uncheck();
  await expect(page.getByText('1 left out')).toBeVisible();
  await expect(example).not.toContainText('"bookings"');
  await expect(page.getByText('All changes kept')).toBeVisible();

  const mock = await isomeros.createMock(id, { Crew: 2, Sailing: 0 });
  await curl('POST', `${mock}/sailings`, { masterId: 1 });
  expect(await curl('GET', `${mock}/sailings/1`)).toMatchObject({
    body: {
      links: {
        self: { href: '/api/v1/sailings/1' },
        crew: [{ href: '/api/v1/crews/1' }],
        collection: { href: '/api/v1/sailings' },
      },
    },
  });

  await page.getByRole('checkbox', { name: 'bookings in items' }).check();
  await expect(example).toContainText('"bookings"');
  await page.getByRole('button', { name: 'Reset crew' }).first().click();
  await expect(relation('Sailing>Crew:master')).toHaveValue('master');
  await page.keyboard.press('Control+z');
  await expect(relation('Sailing>Crew:master')).toHaveValue('crew');
});

test('links of one’s own are lines: elsewhere, to an operation, to a record some roles away, and mended', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  const example = page.getByLabel('Example exchange');
  const add = async (line: string): Promise<void> => {
    await page.getByRole('button', { name: 'Add a link' }).click();
    await page.getByLabel('Line of the new link').fill(line);
    await page.keyboard.press('Enter');
  };
  await path(page, '/{sailingId}').getByText('/{sailingId}', { exact: true }).click();
  await page.getByRole('button', { name: 'Links', exact: true }).click();

  await add('manual -> "https://docs.example/{depth}"');
  await expect(page.getByRole('alert')).toHaveText('Sailing has no depth. (column 11)');
  await page.getByLabel('Line of the new link').fill('manual -> "https://docs.example/{be');
  await page.getByRole('option', { name: /berth/ }).waitFor({ state: 'attached' });
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await press(page.getByLabel('Line of the new link'), 'End');
  await page.keyboard.type('}"');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Line of manual')).toHaveValue('manual -> "https://docs.example/{berth}"');
  await expect(example).toContainText('"https://docs.example/');
  await add('alternate -> listSailings where berth = self.berth, size 5');
  await expect(example).toContainText('/api/v1/sailings?berth=');

  await path(page, '/{bookingId}').getByText('/{bookingId}', { exact: true }).click();
  await add('captain -> sailing.master');
  await expect(page.getByLabel('Line of captain')).toHaveValue('captain -> sailing.master');
  await expect(page.getByText('All changes kept')).toBeVisible();

  const mock = await isomeros.createMock(id, { Crew: 1, Sailing: 0, Booking: 0 });
  await curl('POST', `${mock}/sailings`, { masterId: 1, berth: 'N 1' });
  await curl('POST', `${mock}/sailings/1/bookings`, { seats: 2 });
  expect(await curl('GET', `${mock}/sailings/1`)).toMatchObject({
    body: {
      links: {
        manual: { href: 'https://docs.example/N%201' },
        alternate: { href: '/api/v1/sailings?berth=N%201&size=5' },
      },
    },
  });
  expect(await curl('GET', `${mock}/sailings/1/bookings/1`)).toMatchObject({
    body: { links: { captain: { href: '/api/v1/crews/1' } } },
  });

  // What it leads to is left out: the link dangles, and is taken away where that is told.
  await path(page, '/sailings').getByText('/sailings', { exact: true }).click();
  await path(page, '/sailings').getByRole('button', { name: 'Leave out list, listSailings' }).click();
  await path(page, '/{sailingId}').getByText('/{sailingId}', { exact: true }).click();
  const found = page.getByRole('list', { name: 'Findings about Line of alternate' });
  await expect(found).toContainText('The operation it leads to is not offered any more.');
  await found.getByRole('button', { name: 'Remove alternate' }).click();
  await expect(page.getByLabel('Line of alternate')).toBeHidden();
  await expect(page.getByLabel('Line of manual')).toBeVisible();
});

test('where a client can go is shown and gone, and what nothing leads to is mended', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  await page.getByText('Where a client can go').click();
  await expect(page.getByText('reached from the entry, by links alone')).toBeVisible();
  const map = page.getByLabel('Where links lead');
  const booking = map.getByRole('option', { name: '/api/v1/sailings/{sailingId}/bookings, 4 requests' });
  await booking.click();
  const way = page.getByRole('region', { name: 'Shortest way' });
  await expect(way.getByRole('row', { name: /GET \/api\/v1\/sailings\/\d+ 200/ })).toContainText('bookings');
  await expect(way.getByText('4 requests')).toBeVisible();

  // By keys alone: back along the way, and to what comes first behind the entry.
  await map.focus();
  for (const key of ['ArrowLeft', 'ArrowLeft', 'Enter']) await page.keyboard.press(key);
  await expect(way.getByText('2 requests')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(way.getByText('Press a resource')).toBeVisible();

  await booking.dblclick();
  await expect(page.getByLabel('The chosen path')).toContainText('/sailings/{sailingId}/bookings');
  await path(page, '/{sailingId}').getByText('/{sailingId}', { exact: true }).click();
  await page.getByRole('button', { name: 'Links', exact: true }).click();
  await page.getByRole('checkbox', { name: 'bookings in lists' }).uncheck();
  await page.getByRole('checkbox', { name: 'bookings in items' }).uncheck();
  await page.getByText('Where a client can go').click();
  await expect(page.getByRole('option', { name: /bookings, nothing leads here/ })).toBeVisible();
  const findings = page.getByRole('region', { name: 'Findings about links' });
  await expect(findings).toContainText('bookings was left out at /sailings/{sailingId}');
  // The list, and what lies behind it, are mended by the same.
  await findings.getByRole('button', { name: 'Bring back bookings' }).last().click();
  await expect(findings).toContainText('Every resource is reached');
  await expect(booking).toBeVisible();
});

test('two hundred entities are shown at once, and only what is visible is drawn', async ({
  page,
  isomeros,
}) => {
  const entities = Array.from(
    { length: 200 },
    (_, at) => `entity Depot${at}\n  name: text(1..20), required\n`,
  );
  const owned = Array.from(
    { length: 120 },
    (_, at) => `each Depot${at} owns many Depot${at + 80} as shelves${at}`,
  );
  const id = await isomeros.createDesign(`${entities.join('\n')}\n${owned.slice(60).join('\n')}\n`);
  await page.goto(`${isomeros.url}/designs/${id}/arrange?view=links`);
  await expect(page.getByText(/of \d+ resources/)).toBeVisible();
  const map = page.getByLabel('Where links lead');
  await expect.poll(() => map.getByRole('option').count()).toBeGreaterThan(20);
  expect(await map.getByRole('option').count()).toBeLessThan(200);
  await map.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Shortest way' }).getByText('2 requests')).toBeVisible();
});
