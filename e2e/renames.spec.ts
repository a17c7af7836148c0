import { expect, test, typeAtEnd } from './support/isomeros.js';

const TEXT = `design "Renamed"

entity Route
  name: text(1..60), required
  length: integer(0..)
`;

test('a rename keeps the records of a running mock, told by F2 or by answering', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  const mock = await isomeros.createMock(id);
  const read = async (): Promise<Record<string, unknown>> => {
    const list = (await (await fetch(`${mock}/routes`)).json()) as {
      items: Record<string, unknown>[];
    };
    return list.items[0] ?? {};
  };
  const before = await read();
  await page.goto(`${isomeros.url}/designs/${id}/model`);

  await test.step('by the rename command', async () => {
    await page.locator('.cm-line').filter({ hasText: 'name: text' }).click();
    await page.keyboard.press('Home');
    await page.keyboard.press('F2');
    await page.getByLabel('New name').fill('title');
    await page.keyboard.press('Enter');
    await expect(page.getByText('All changes kept')).toBeVisible();
    await expect.poll(async () => (await read())['title']).toBe(before['name']);
  });

  await test.step('by typing something the texts do not show, and saying so', async () => {
    await page.getByLabel('Notation of the model').click();
    await page.keyboard.press('Control+a');
    await page.keyboard.insertText(
      TEXT.replace('name:', 'title:').replace('length: integer(0..)', 'miles: decimal(0..)'),
    );
    await page.getByRole('button', { name: 'Yes, this was a rename' }).click();
    await expect.poll(async () => (await read())['miles']).toBe(before['length']);
    expect((await read())['title']).toBe(before['name']);
  });

  await test.step('and what is new is new', async () => {
    await typeAtEnd(page, '  opened: date');
    await expect.poll(async () => Object.keys(await read())).toContain('opened');
  });
});
