import { expect, press, stage, test } from './support/isomeros.js';

test('the contract is read by keyboard, each answer with its reason', async ({ page, isomeros }) => {
  await page.goto(isomeros.url);
  await page.getByRole('link', { name: 'Kestrel Sound Ferries' }).click();
  await stage(page, 'Contract').click();
  await page.getByLabel('Narrow the operations').fill('booking');
  await page.getByRole('button', { name: 'createBooking' }).click();
  await expect(page.getByRole('heading', { name: 'createBooking', exact: true })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Example' })).toContainText('HTTP/1.1 201 Created');
  await page.getByRole('button', { name: 'Why 404' }).click();
  await expect(page.getByRole('region', { name: 'Why' })).toContainText('status.missing');
  await page.getByLabel('Narrow the operations').fill('');
  await press(page.getByRole('grid', { name: 'Paths and methods' }), 'ArrowDown');
  await expect(page.getByRole('heading', { name: 'listSailingCrew', exact: true })).toBeVisible();
  await press(page.getByRole('button', { name: 'Published documents' }));
  const href =
    (await page.getByRole('link', { name: 'openapi-3.1.json', exact: true }).getAttribute('href')) ?? '';
  const published = await fetch(isomeros.url + href);
  expect(((await published.json()) as { openapi: string }).openapi).toBe('3.1.1');
});

test('a message is written as it travels, sent, and its links followed', async ({ page, isomeros }) => {
  await page.goto(isomeros.url);
  await page.getByRole('link', { name: 'Kestrel Sound Ferries' }).click();
  await stage(page, 'Mock').click();
  await page.getByRole('button', { name: 'Start the mock' }).click();
  const editor = page.getByLabel('Next message');
  await editor.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText(
    'PATCH /api/v1/routes/1/sailings/1 HTTP/1.1\nContent-Type: application/json\n\n{ "berth": "9Z" }',
  );
  await expect(page.getByText('Change parts of a sailing')).toBeVisible();
  await page.keyboard.press('Control+Enter');
  const happened = page.getByRole('region', { name: 'What happened' });
  await expect(happened.locator('td.changed').filter({ hasText: /^9Z$/ })).toBeVisible();
  await page.getByRole('button', { name: '/api/v1/routes/1', exact: true }).first().click();
  await expect(page.getByRole('listbox', { name: 'Exchange log' }).getByText('readRoute')).toBeVisible();
  await editor.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText('this is no request');
  await page.getByRole('button', { name: 'Send' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Expected a request line' })).toBeVisible();
});

test('the command line reaches entities, paths and operations', async ({ page, isomeros }) => {
  await page.goto(isomeros.url);
  await page.getByRole('link', { name: 'Kestrel Sound Ferries' }).click();
  await expect(page.getByRole('tree', { name: 'Path tree' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('removeVessel');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'removeVessel', exact: true })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('CrewMember entity');
  await page.keyboard.press('Enter');
  await expect(page.locator('.cm-activeLine')).toContainText('entity CrewMember');
});

test('a broken model is refused with its first error, where it was pasted', async ({ page, isomeros }) => {
  await page.goto(isomeros.url);
  await page.getByLabel('A model in notation').fill('entity A\n  name: txt');
  await page.getByRole('button', { name: 'Begin with it' }).click();
  await expect(page.getByRole('alert')).toContainText('the first in line 2');
});

test('the look is chosen once and kept', async ({ page, isomeros }) => {
  await page.goto(isomeros.url);
  await page.getByRole('button', { name: 'Dark' }).click();
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
});

test('an address that leads nowhere says so', async ({ page, isomeros }) => {
  await page.goto(`${isomeros.url}/designs/00000000-0000-4000-8000-000000000000/model`);
  await expect(page.getByText('There is no design')).toBeVisible();
  await page.goto(`${isomeros.url}/nowhere`);
  await expect(page.getByText('There is no page at this address.')).toBeVisible();
});
