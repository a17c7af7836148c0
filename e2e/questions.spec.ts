import { expect, test } from './support/isomeros.js';

const TEXT = `design "Asked"

entity Route
  name: text(1..60), required, unique

entity Sailing
  departsAt: instant

entity Vessel
  name: text(1..60)

entity Notice
  text: text

# who sails where
each Route owns many Sailing as sailings
each Sailing refers to optional Vessel as vessel, back as sailings
`;

test('assumptions are answered where they are asked, remembered, and asked again on request', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  const questions = page.getByRole('region', { name: 'Findings and assumptions' });
  const row = (text: string): ReturnType<typeof questions.locator> =>
    questions.getByRole('listitem').filter({ hasText: text });
  await expect(row('Can a sailing exist without its route?')).toContainText(
    'Yes would remove 1 path and add 2.',
  );

  await row('What does a sailing call the route').getByRole('button', { name: 'another name' }).click();
  await page.getByLabel('The name').fill('line');
  await page.keyboard.press('Enter');
  const editor = page.getByLabel('Notation of the model');
  await expect(editor).toContainText('each Route owns many Sailing as sailings, back as line');
  await expect(editor).toContainText('# who sails where');

  await row('How many records').getByRole('button', { name: '50' }).click();
  await row('Can a sailing exist').getByRole('button', { name: 'No, assumed' }).click();
  await expect(questions.getByText('1 open assumption', { exact: false })).toBeVisible();
  await expect(page.getByText('All changes kept')).toBeVisible();
  await page.reload();
  await expect(questions.getByText('1 open assumption', { exact: false })).toBeVisible();
  await questions.getByRole('button', { name: '2 answered' }).click();
  await row('How many records').getByRole('button', { name: 'Ask again' }).click();
  await expect(questions.getByText('2 open assumptions', { exact: false })).toBeVisible();
  await expect(row('How many records').getByRole('button', { name: '20, assumed' })).toBeVisible();
});

test('a finding is mended by its button, and undo takes it back', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await expect(page.getByText('Nothing leads to Notice, and it leads nowhere.')).toBeVisible();
  await page.getByRole('button', { name: 'Remove Notice' }).click();
  const editor = page.getByLabel('Notation of the model');
  await expect(editor).not.toContainText('entity Notice');
  await expect(page.getByText('Nothing leads to Notice')).toHaveCount(0);
  await editor.click();
  await page.keyboard.press('Control+z');
  await expect(editor).toContainText('entity Notice');
});

test('an earlier state is looked at, compared and made the latest', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign(TEXT);
  await isomeros.ask('PUT', `/api/designs/${id}/model`, {
    text: TEXT.replace('entity Notice\n  text: text\n\n', ''),
  });
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await page.getByRole('link', { name: /All changes kept/ }).click();
  const list = page.getByRole('listbox', { name: 'Revisions' });
  await expect(list.getByRole('option')).toHaveCount(2);
  const differences = page.getByRole('region', { name: 'Differences' });
  await expect(differences.locator('.cm-deletedChunk')).toContainText('entity Notice');
  await list.getByText('begun').click();
  await page.getByText('to what is there now').click();
  await expect(differences.locator('.cm-deletedChunk')).toContainText('entity Notice');
  await page.getByRole('button', { name: 'Make this the latest' }).click();
  await expect(page.getByLabel('Notation of the model')).toContainText('entity Notice');
});
