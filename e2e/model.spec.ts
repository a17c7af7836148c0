import type { Locator, Page } from '@playwright/test';
import { expect, stage, test, typeAtEnd, type Isomeros } from './support/isomeros.js';

const TEXT = 'design "Small"\n\nentity Route\n  name: text(1..60), required\n';

/** Opens the small design on its Model stage, its paths shown. */
async function openSmall(
  page: Page,
  isomeros: Isomeros,
): Promise<{ readonly id: string; readonly tree: Locator }> {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  const tree = page.getByRole('tree', { name: 'Path tree' });
  await expect(tree.getByText('/routes')).toBeVisible();
  return { id, tree };
}

test('a mistake is marked where it stands, with its mend, and the last good paths stay', async ({
  page,
  isomeros,
}) => {
  const { tree } = await openSmall(page, isomeros);
  await typeAtEnd(page, 'entity Sailing\nberth: txt(1..4)');
  await expect(page.getByText('There is no type txt. The nearest is text.')).toBeVisible();
  await expect(page.getByText('1 error, line 6')).toBeVisible();
  await expect(tree.getByText('/routes')).toBeVisible();
  await expect(page.getByText('as of the last valid text').first()).toBeVisible();
  await expect(stage(page, 'Model')).toContainText('2 entities');
  // Whatever text was the last valid one, all that follows is of the same.
  const implied = await page.getByRole('region', { name: 'What this implies' }).first().textContent();
  const operations = /\d+ operations?/.exec(implied ?? '')?.[0] ?? 'no figure';
  await expect(stage(page, 'Contract')).toContainText(operations);
  await page.getByRole('button', { name: 'Use text' }).click();
  await expect(tree.getByText('/sailings')).toBeVisible();
  await expect(page.getByText('All changes kept')).toBeVisible();
});

test('a saved text with errors opens with its errors and the last good paths', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await typeAtEnd(page, 'nonsense here');
  await expect(page.getByText('statement.unknown')).toBeVisible();
  await expect(page.getByText('All changes kept')).toBeVisible();
  await page.reload();
  await expect(page.getByText('statement.unknown')).toBeVisible();
  await expect(page.getByRole('tree', { name: 'Path tree' }).getByText('/routes')).toBeVisible();
});

test('a design that was left is all there when it is opened again', async ({ page, isomeros }) => {
  const [first, second] = [
    await isomeros.createDesign('design "First"\n\nentity Harbour\n  name: text\n'),
    await isomeros.createDesign('design "Second"\n\nentity Route\n  name: text\n'),
  ];
  const tree = page.getByRole('tree', { name: 'Path tree' });
  const stages = page.getByRole('navigation', { name: 'Stages' });
  const open = async (name: string): Promise<void> => {
    await page.getByRole('link', { name: 'Isomeros' }).click();
    await page.getByRole('link', { name }).first().click();
  };
  await page.goto(`${isomeros.url}/designs/${first}/model`);
  await expect(tree.getByText('/harbours')).toBeVisible();
  // The answer about the other one never comes: what was derived last is still that of the first.
  await page.route(`**/api/designs/${second}`, (route) => route.abort());
  await open('Second');
  await expect(page.getByText('The server does not answer.')).toBeVisible();
  await open('First');
  await expect(tree.getByText('/harbours')).toBeVisible();
  await expect(stages).toContainText('1 entity');
});

test('an empty design is a place to begin, not an error', async ({ page, isomeros }) => {
  await page.goto(isomeros.url);
  await page.getByLabel('Its name').fill('Nothing yet');
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  const tree = page.getByRole('tree', { name: 'Path tree' });
  await expect(tree.getByText('/api/v1')).toBeVisible();
  await expect(page.getByText('each Route owns many Sailing as sailings, back as route')).toBeVisible();
  await page.getByLabel('Notation of the model').click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('#');
  await expect(page.getByRole('button', { name: 'Begin with these' })).toHaveCount(0);
  await page.keyboard.press('Backspace');
  await page.getByText('Map', { exact: true }).click();
  await expect(page.getByText('Next: entities, and a sentence')).toBeVisible();
  await stage(page, 'Contract').click();
  await expect(page.getByText('Next: choose a cell')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'readEntry', exact: true })).toBeVisible();
  await stage(page, 'Mock').click();
  await page.getByRole('button', { name: 'Start the mock' }).click();
  await page.getByRole('button', { name: 'Send' }).click();
  await expect(page.getByRole('listbox', { name: 'Exchange log' }).getByText('readEntry')).toBeVisible();
});

test('names of the language are handled as names', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign('entity Constructor\n  constructor: text\n  toString: text\n');
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await expect(
    page.getByRole('tree', { name: 'Path tree' }).getByText('/constructors', { exact: true }),
  ).toBeVisible();
  await typeAtEnd(page, '\nentity __proto__\n  name: text\n');
  await expect(page.getByText('Names of entities are in PascalCase; __proto__ is not.')).toBeVisible();
});

test('a text over the limit is refused in place, and nothing is lost', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await page.getByLabel('Notation of the model').click();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', `# ${'x'.repeat(98)}\n`.repeat(21_000));
    document
      .querySelector('.cm-content')
      ?.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect(page.getByText('Not kept: too large')).toBeVisible();
  await page.getByRole('button', { name: '1 error, line 1' }).click();
  await expect(page.getByText('The text is larger than the limit.')).toBeVisible();
  await expect(page.getByRole('tree', { name: 'Path tree' }).getByText('/routes')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('All changes kept')).toBeVisible();
});

test('a large model is derived beside the typing, in a worker', async ({ page, isomeros }) => {
  const entities = Array.from(
    { length: 200 },
    (_, index) => `entity Thing${index}\n  name: text(1..60), required\n  size: integer\n`,
  );
  const owns = entities
    .slice(1)
    .map(
      (_, index) =>
        `each Thing${Math.floor(index / 3)} owns many Thing${index + 1} as parts${index + 1}, back as whole`,
    );
  const id = await isomeros.createDesign(`design "Large"\n\n${entities.join('\n')}\n${owns.join('\n')}\n`);
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await expect(page.getByText('401 paths, 1201 operations', { exact: true })).toBeVisible();
  expect(page.workers().length).toBeGreaterThan(0);
  await typeAtEnd(page, '\nentity Extra\nname: text(1..60), required\nsize: integer\n');
  await expect(page.getByText('403 paths, 1207 operations, 2 new')).toBeVisible();
});

test('two pages on one design never overwrite each other silently', async ({ page, isomeros, context }) => {
  const id = await isomeros.createDesign(TEXT);
  const other = await context.newPage();
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await other.goto(`${isomeros.url}/designs/${id}/model`);
  await expect(other.getByRole('tree', { name: 'Path tree' })).toBeVisible();
  await typeAtEnd(page, '\n# from the first page');
  await expect(page.getByText('All changes kept')).toBeVisible();
  await typeAtEnd(other, '\n# from the second page');
  await expect(other.getByText('Another page saved this design meanwhile.')).toBeVisible();
  await other.getByRole('button', { name: 'Take theirs' }).click();
  await expect(other.getByText('# from the first page')).toBeVisible();
  await expect(other.getByText('All changes kept')).toBeVisible();
});

test('what is said as elsewhere is mended by what was meant, and an indent typed by hand is not doubled', async ({
  page,
  isomeros,
}) => {
  const { id, tree } = await openSmall(page, isomeros);
  await typeAtEnd(page, '\nentity Sailing\n  berth: string\nRoute has many Sailing');
  await page.getByRole('button', { name: 'Use text' }).click();
  await expect(page.getByText('each is removed with its owner')).toBeVisible();
  await page.getByRole('button', { name: 'Use owns many' }).click();
  await expect(tree.getByText('/sailings')).toBeVisible();
  await expect
    .poll(async () => (await isomeros.ask<{ text: string }>('GET', `/api/designs/${id}`)).text)
    .toBe(`${TEXT}\nentity Sailing\n  berth: text\neach Route owns many Sailing`);
});

test('a design begun without a name offers its first statements', async ({ page, isomeros }) => {
  await page.goto(isomeros.url);
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'New design' })).toBeVisible();
  await page.getByRole('button', { name: 'Begin with these' }).click();
  const tree = page.getByRole('tree', { name: 'Path tree' });
  await expect(tree.getByText('/sailings')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Begin with these' })).toHaveCount(0);
  await expect(page.getByText('All changes kept')).toBeVisible();
});

test('a design of one entity says at each stage what to do next, and no more once it has grown', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign('entity Route\n  name: text\n');
  for (const [stage, next] of [
    ['model', /^Next: entities, and a sentence/],
    ['arrange', /^Next: choose the basics/],
    ['contract', /^Next: choose a cell/],
    ['mock', /^Next: start the mock/],
  ] as const) {
    await page.goto(`${isomeros.url}/designs/${id}/${stage}`);
    await expect(page.getByText(next)).toBeVisible();
  }
  const grown = await isomeros.createDesign('entity Route\n  name: text\n\nentity Sailing\n  name: text\n');
  await page.goto(`${isomeros.url}/designs/${grown}/contract`);
  await expect(page.getByText('/sailings').first()).toBeVisible();
  await expect(page.getByText(/^Next:/)).toHaveCount(0);
});
