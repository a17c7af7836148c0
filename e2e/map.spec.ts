import { expect, press, test } from './support/isomeros.js';

const TEXT = `design "Small"

# about routes
entity Route
  name: text(1..60), required

entity Sailing
  status: choice(planned, gone), default planned
    go: planned -> gone
  departsAt: instant

each Route owns many Sailing as sailings, back as route
`;

test.beforeEach(async ({ page, isomeros }) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await page.getByText('Map', { exact: true }).click();
  await expect(page.getByRole('button', { name: /^Route \d/ })).toBeVisible();
});

test('text and map select together, and the map is walked by keyboard', async ({ page }) => {
  await page.getByRole('button', { name: /^Route \d/ }).click();
  await expect(page.locator('.cm-selected-statement')).toHaveCount(2);
  await expect(page.locator('.cm-selected-statement').first()).toContainText('entity Route');
  await press(page.getByRole('group', { name: 'Map' }), 'ArrowDown');
  await expect(page.locator('.map-node.selected')).toContainText('Sailing');
  await page.locator('.cm-line').filter({ hasText: 'each Route owns' }).click();
  await expect(page.locator('.map-edge.owns.lit')).toHaveCount(1);
});

test('a sheet writes back to the text, comments and order untouched, and undo takes it back', async ({
  page,
}) => {
  await page.getByRole('button', { name: /^Route \d/ }).click();
  await press(page.getByRole('group', { name: 'Map' }));
  const sheet = page.getByRole('region', { name: 'Sheet' });
  await sheet.getByRole('button', { name: /^name / }).click();
  await sheet.getByRole('checkbox', { name: 'unique' }).click();
  await expect(sheet.getByRole('checkbox', { name: 'unique' })).toBeChecked();
  await expect(page.getByText('name: text(1..60), required, unique')).toBeVisible();
  await sheet.getByRole('textbox', { name: 'Name', exact: true }).fill('Line');
  await press(sheet.getByRole('textbox', { name: 'Name', exact: true }));
  await expect(page.locator('.cm-line').filter({ hasText: 'each Line owns many Sailing' })).toBeVisible();
  await expect(page.getByText('# about routes')).toBeVisible();
  await page.getByLabel('Notation of the model').click();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.locator('.cm-line').filter({ hasText: 'each Route owns many Sailing' })).toBeVisible();
  await expect(page.getByText('All changes kept')).toBeVisible();
});

test('whether it can exist without its owner decides between owning and referring', async ({ page }) => {
  await page.locator('.cm-line').filter({ hasText: 'each Route owns' }).click();
  await press(page.getByRole('group', { name: 'Map' }));
  const sheet = page.getByRole('region', { name: 'Sheet' });
  await expect(sheet.getByText('Can a Sailing exist without its Route?')).toBeVisible();
  await sheet.getByText('Yes: it only refers').click();
  await expect(page.getByText('each Sailing refers to one Route as route, back as sailings')).toBeVisible();
});

test('a name is changed everywhere by F2, completed while typed, and led to by F12', async ({ page }) => {
  await page.locator('.cm-line').filter({ hasText: 'each Route owns' }).getByText('Sailing').click();
  await page.keyboard.press('F12');
  await expect(page.locator('.cm-activeLine')).toContainText('entity Sailing');
  await page.keyboard.press('F2');
  await page.getByLabel('New name').fill('Crossing');
  await page.keyboard.press('Enter');
  await expect(page.locator('.cm-line').filter({ hasText: 'each Route owns many Crossing' })).toBeVisible();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('each Rou');
  await expect(page.getByRole('option', { name: /Route/ })).toBeVisible();
  const line = page.locator('.cm-activeLine');
  // An offer that has only just come is not taken: whoever presses then means what stood there before.
  await expect(async () => {
    if (!(await line.innerText()).includes('each Route'))
      await page.getByRole('option', { name: /Route/ }).click({ timeout: 2_000 });
    await expect(line).toContainText('each Route', { timeout: 1_000 });
  }).toPass();
});

test('what is added has a name before it is anything', async ({ page }) => {
  await page.getByRole('button', { name: 'Add entity' }).click();
  const name = page.getByLabel('Name of what is added');
  await name.fill('route');
  await expect(page.getByRole('alert')).toContainText('Expected a name in PascalCase');
  await name.fill('Sailing');
  await expect(page.getByRole('alert')).toContainText('Sailing is there already.');
  await name.fill('Vessel');
  await expect(page.getByLabel('Notation of the model')).not.toContainText('Vessel');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Notation of the model')).toContainText('entity Vessel');
  await expect(page.getByRole('region', { name: 'Sheet' })).toBeVisible();
  await page.getByRole('button', { name: 'Add relationship' }).click();
  await page.getByLabel('Name of what is added').fill('like');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Notation of the model')).toContainText('refers to optional Route as like');
});

/** Something that owns much, which owns more: a layer of it is as wide as there is. */
function wideModel(entities: number): string {
  const names = Array.from({ length: entities }, (_, index) => `Record${index}`);
  const owned = names.slice(1).map((name, index) => {
    const owner = names[index < entities / 3 ? 0 : Math.floor(index / 4)] ?? '';
    return `each ${owner} owns many ${name} as parts${index}, back as whole`;
  });
  return `design "Wide"\n\n${names.map((name) => `entity ${name}\n  name: text\n`).join('\n')}\n${owned.join('\n')}\n`;
}

for (const entities of [16, 40])
  test(`a map of ${entities} entities opens as a whole, its names to be read, and is found as it was left`, async ({
    page,
    isomeros,
  }) => {
    const id = await isomeros.createDesign(wideModel(entities));
    await page.goto(`${isomeros.url}/designs/${id}/model`);
    await page.getByText('Map', { exact: true }).click();
    const names = page.locator('.map-node .name');
    await expect(names).toHaveCount(entities);
    const map = await page.getByRole('group', { name: 'Map' }).boundingBox();
    if (map === null) throw new Error('There is no map.');
    const boxes = (): Promise<readonly DOMRect[]> =>
      names.evaluateAll((all) => all.map((name) => name.getBoundingClientRect().toJSON() as DOMRect));
    // A line of text is a quarter higher than its letters.
    const outside = async (): Promise<number> =>
      (await boxes()).filter(
        ({ left, right, top, bottom, height }) =>
          height < 10 ||
          left < map.x ||
          right > map.x + map.width ||
          top < map.y ||
          bottom > map.y + map.height,
      ).length;
    await expect.poll(outside).toBe(0);
    await page.getByRole('group', { name: 'Map' }).focus();
    for (let step = 0; step < 4; step++) await page.keyboard.press('+');
    const near = await boxes();
    await page.getByRole('link', { name: /Contract/ }).click();
    await page.getByRole('link', { name: /Model/ }).click();
    await expect.poll(boxes).toEqual(near);
  });
