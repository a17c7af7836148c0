import { type Page } from '@playwright/test';
import { expect, test } from './support/isomeros.js';

/** Goes somewhere by the command line, as a person would. */
async function goTo(page: Page, words: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('dialog', { name: 'Go to' })).toBeVisible();
  await page.keyboard.type(words);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Go to' })).toHaveCount(0);
}

/** Presses Tab until what is meant has the focus, going round again while it may still be on its way. */
async function tabTo(page: Page, isThere: (focused: string) => boolean): Promise<void> {
  await expect(async () => {
    for (let press = 0; press < 60; press++) {
      await page.keyboard.press('Tab');
      const focused = await page.evaluate(() => {
        const element = document.activeElement;
        return `${element?.getAttribute('aria-label') ?? ''} ${element?.textContent.slice(0, 80) ?? ''}`;
      });
      if (isThere(focused)) return;
    }
    throw new Error('Tab does not lead there.');
  }).toPass();
}

test.use({ fresh: true });

test('the first ten minutes, by keyboard only', async ({ page, isomeros }) => {
  await page.goto(isomeros.url);
  await expect(page.getByRole('article', { name: 'Kestrel Sound Ferries' })).toBeVisible();
  await goTo(page, 'Kestrel');
  const editor = page.getByLabel('Notation of the model');
  await expect(editor).toContainText('entity Harbour');

  await test.step('an entity is typed, with completion, and its paths are there', async () => {
    await tabTo(page, (focused) => focused.startsWith('Notation of the model'));
    await page.keyboard.press('Control+End');
    await page.keyboard.type('\nentity Meal\nname: te');
    const offered = page.locator('.cm-tooltip-autocomplete').getByRole('option');
    await expect(offered).toHaveCount(3);
    // An offer that has only just appeared is not taken by Enter; one that was narrowed is.
    await page.keyboard.type('x');
    await expect(offered).toHaveCount(1);
    await page.keyboard.press('Enter');
    await page.keyboard.type('(1..40), required\n\neach Sailing owns many Meal as meals', { delay: 4 });
    await page.keyboard.press('Escape');
    await expect(page.locator('.row.new').getByText('/meals', { exact: true })).toBeVisible();
  });

  await test.step('a question is answered', async () => {
    await page.keyboard.press('Escape');
    await tabTo(page, (focused) => focused.includes('20, assumed'));
    await tabTo(page, (focused) => focused.trim() === '50');
    await page.keyboard.press('Enter');
    await expect(page.getByText('1 answered')).toBeVisible();
    await expect(page.getByText('All changes kept')).toBeVisible();
  });

  await test.step('an operation is read, with its reason', async () => {
    await goTo(page, 'createMeal');
    await expect(page.getByRole('heading', { name: 'createMeal', exact: true })).toBeVisible();
    await tabTo(page, (focused) => focused.startsWith('Why 404'));
    await page.keyboard.press('Enter');
    await expect(page.getByRole('region', { name: 'Why' })).toContainText('status.missing');
  });

  await test.step('the mock is started and called', async () => {
    await goTo(page, 'Mock view');
    await tabTo(page, (focused) => focused.includes('Start the mock'));
    await page.keyboard.press('Enter');
    await expect(page.getByTestId('base-url')).toBeVisible();
    await tabTo(page, (focused) => focused.startsWith('Next message'));
    await page.keyboard.press('Control+a');
    await page.keyboard.insertText(
      'POST /api/v1/routes/1/sailings/1/meals HTTP/1.1\nContent-Type: application/json\n\n{ "name": "Fish pie" }',
    );
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('listbox', { name: 'Exchange log' }).getByText('createMeal')).toBeVisible();
    await expect(page.getByRole('region', { name: 'What happened' })).toContainText('Fish pie');
  });

  await test.step('an earlier state is brought back', async () => {
    await goTo(page, 'Revisions view');
    const revisions = page.getByRole('listbox', { name: 'Revisions' }).getByRole('option');
    await expect(revisions.first()).toBeVisible();
    await tabTo(page, (focused) => focused.startsWith('Revisions'));
    await page.keyboard.press('End');
    await tabTo(page, (focused) => focused.includes('Make this the latest'));
    await page.keyboard.press('Enter');
    await expect(editor).toBeVisible();
    await expect(editor).not.toContainText('entity Meal');
  });
});
