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
  await page.getByRole('checkbox', { name: 'bookings offered' }).uncheck();
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

  await page.getByRole('checkbox', { name: 'bookings offered' }).check();
  await expect(example).toContainText('"bookings"');
  await page.getByRole('button', { name: 'Reset crew' }).first().click();
  await expect(relation('Sailing>Crew:master')).toHaveValue('master');
  await page.keyboard.press('Control+z');
  await expect(relation('Sailing>Crew:master')).toHaveValue('crew');
});
