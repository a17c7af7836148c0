import { path } from './support/arranging.js';
import { curl } from './support/curl.js';
import { expect, test } from './support/isomeros.js';

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
  await page.getByLabel('Line of the new link').press('End');
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

  await page.getByRole('link', { name: /Model/ }).click();
});
