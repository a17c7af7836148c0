import type { Page } from '@playwright/test';
import { expect, test } from './support/isomeros.js';

/** What of these elements is cut off at their right. */
const cutOff = (page: Page, selector: string): Promise<readonly string[]> =>
  page
    .locator(selector)
    .evaluateAll((elements) =>
      elements
        .filter(({ scrollWidth, clientWidth }) => scrollWidth > clientWidth)
        .map(({ textContent }) => textContent),
    );

test('columns fit what they hold: paths and figures of the sample are there whole', async ({
  page,
  isomeros,
}) => {
  await page.goto(isomeros.url);
  await page.getByRole('link', { name: 'Kestrel Sound Ferries' }).first().click();
  for (const [stage, selectors] of [
    ['Model', ['.tree-path']],
    ['Arrange', ['.tree-path', '.not-exposed', '.setting-rows .title', '.ant-select-selection-item']],
    ['Contract', ['.sheet-row .path', '.operation-columns > div:first-child', '.panel-head']],
  ] as const) {
    const [first] = selectors;
    await page
      .getByRole('navigation', { name: 'Stages' })
      .getByRole('link', { name: new RegExp(stage) })
      .click();
    await expect.poll(() => page.locator(first).count()).toBeGreaterThan(10);
    for (const selector of [...selectors, '.stage .figure'])
      expect([stage, selector, await cutOff(page, selector)]).toEqual([stage, selector, []]);
  }
});

test('a message stands below its line, however long it is, and covers none that follow', async ({
  page,
  isomeros,
}) => {
  const long = 'averyveryverylongwordthatnobodywouldeverusefortheattributeofsomething';
  const text = `design "Long"\n\nentity Route\n  ${long}: txt(1..4), required, unique, write-only\n  name: text\n  length: integer\n`;
  const id = await isomeros.createDesign('design "Long"\n\nentity Route\n');
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  await page.getByLabel('Notation of the model').click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText(text);
  const message = page.locator('.cm-diagnostic');
  await expect(message).toContainText('There is no type txt');
  const box = await message.boundingBox();
  expect(box).not.toBeNull();
  for (const line of ['name: text', 'length: integer']) {
    const next = await page.locator('.cm-line').filter({ hasText: line }).last().boundingBox();
    expect(next?.y).toBeGreaterThanOrEqual((box?.y ?? 0) + (box?.height ?? 0) - 1);
  }
});
