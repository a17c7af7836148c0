import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, press, test, type Isomeros, typeAtEnd } from './support/isomeros.js';

const TEXT = `design "Ferries"

# about routes
entity Route
  name: text(1..60), required, unique
  length: text(0..9)
  password: text(8..40)

entity Sailing
  status: choice(planned, departed), default planned
    depart: planned -> departed
  departsAt: instant

entity Notice
  text: text

each Route owns many Sailing as sailings
`;

interface Place {
  readonly page: Page;
  readonly isomeros: Isomeros;
  readonly id: string;
}

const onStage =
  (stage: string, shows: (page: Page) => Promise<void>) =>
  async ({ page, isomeros, id }: Place): Promise<void> => {
    await page.goto(`${isomeros.url}/designs/${id}/${stage}`);
    await shows(page);
  };

const tree = (page: Page): ReturnType<Page['getByRole']> => page.getByRole('tree', { name: 'Path tree' });

/** Every view, and how one gets there from the one before. */
const VIEWS: readonly (readonly [string, (place: Place) => Promise<void>])[] = [
  [
    'Home',
    async ({ page, isomeros }) => {
      await page.goto(isomeros.url);
      await expect(page.getByRole('article').first()).toBeVisible();
    },
  ],
  [
    'Intake, empty',
    async ({ page, isomeros }) => {
      await page.goto(`${isomeros.url}/intake`);
      await expect(page.getByRole('button', { name: 'Read it' })).toBeVisible();
    },
  ],
  [
    'Intake, with its report',
    async ({ page }) => {
      await page
        .getByRole('textbox', { name: 'SQL DDL' })
        .fill('CREATE TABLE stops (id int PRIMARY KEY, pin_hash text, picture blob);');
      await page.getByRole('button', { name: 'Read it' }).click();
      await expect(page.getByRole('region', { name: 'Assumed' })).toContainText('pinHash');
    },
  ],
  ['Model, paths', onStage('model', async (page) => expect(tree(page).getByText('/routes')).toBeVisible())],
  [
    'Model, an error in the text',
    async ({ page }) => {
      await typeAtEnd(page, 'nonsense here');
      await expect(page.getByText('statement.unknown')).toBeVisible();
    },
  ],
  [
    'Model, map and sheet',
    async ({ page }) => {
      await press(page.getByLabel('Notation of the model'), 'Control+z');
      await expect(page.getByText('statement.unknown')).toHaveCount(0);
      await page.getByText('Map', { exact: true }).click();
      await page.getByRole('button', { name: /^Route \d/ }).click();
      await press(page.getByRole('group', { name: 'Map' }));
      await expect(page.getByRole('region', { name: 'Sheet' })).toBeVisible();
    },
  ],
  [
    'Arrange',
    onStage('arrange', async (page) => {
      await tree(page).getByText('/routes', { exact: true }).first().click();
      await expect(page.getByLabel('Example exchange')).toContainText('HTTP/1.1');
    }),
  ],
  [
    'Contract',
    onStage('contract', async (page) => {
      await page.getByRole('button', { name: /createRoute/ }).click();
      await expect(page.getByText('createRoute').first()).toBeVisible();
    }),
  ],
  [
    'A release',
    async ({ page }) => {
      await page.getByText('1.0', { exact: true }).first().click();
      await expect(page.getByRole('main')).toContainText('1.0');
    },
  ],
  [
    'Contract, written',
    async ({ page, isomeros, id }) => {
      await page.goto(`${isomeros.url}/designs/${id}/contract`);
      await page.getByText('tag', { exact: true }).click();
      await page.getByRole('button', { name: 'Write: Description' }).click();
      await page.keyboard.type('*Where* it begins');
      await expect(page.getByRole('region', { name: 'How it reads' })).toContainText('Where it begins');
    },
  ],
  [
    'Contract, about the API',
    async ({ page, isomeros, id }) => {
      await page.goto(`${isomeros.url}/designs/${id}/contract?about=api`);
      await page.getByLabel('Name of another server').fill('production');
      await expect(page.getByLabel('address of production')).toBeVisible();
    },
  ],
  [
    'Revisions',
    onStage('revisions', async (page) =>
      expect(page.getByRole('listbox', { name: 'Revisions' }).getByRole('option').first()).toBeVisible(),
    ),
  ],
  [
    'Mock, not started',
    onStage('mock', async (page) =>
      expect(page.getByRole('button', { name: 'Start the mock' })).toBeEnabled(),
    ),
  ],
  [
    'Mock, exchanges',
    async ({ page, isomeros, id }) => {
      const base = await isomeros.createMock(id, { Route: 3 });
      for (const path of ['/routes', '/routes/1', '/routes/99']) await fetch(base + path);
      await onStage('mock', async () => {
        const log = page.getByRole('listbox', { name: 'Exchange log' });
        await log.getByRole('option').first().click();
        await expect(page.getByRole('region', { name: 'What happened' })).toBeVisible();
      })({ page, isomeros, id });
    },
  ],
  [
    'Mock, faults',
    async ({ page }) => {
      await page.getByRole('button', { name: 'Faults', exact: true }).click();
      await expect(page.getByLabel('Fault rules')).toBeVisible();
      await page.keyboard.press('Escape');
    },
  ],
  [
    'Mock, records',
    async ({ page }) => {
      await page.getByRole('button', { name: 'Records', exact: true }).click();
      await expect(page.getByRole('region', { name: 'Records', exact: true })).toContainText('Route');
      const cell = page.getByRole('grid', { name: 'Route records' }).getByRole('gridcell').nth(1);
      await cell.dblclick();
      await page.keyboard.type('');
      await page.keyboard.press('Backspace');
      await page.keyboard.press('Enter');
      await expect(page.getByRole('region', { name: 'Edits' })).toContainText('1 cell changed');
    },
  ],
  [
    'Mock, load',
    async ({ page }) => {
      await page.getByRole('button', { name: 'Discard' }).click();
      await page.getByRole('button', { name: 'Load', exact: true }).click();
      await expect(page.getByRole('img', { name: /^Answers by status/ })).toBeVisible();
    },
  ],
  [
    'Mock, journal',
    async ({ page }) => {
      await page.getByRole('button', { name: 'Exchanges', exact: true }).first().click();
      await page.getByRole('button', { name: 'Journal', exact: true }).click();
      await expect(page.getByRole('group', { name: 'Journal' })).toContainText('in the database');
    },
  ],
  [
    'Contract, published',
    async ({ page, isomeros, id }) => {
      await page.goto(`${isomeros.url}/designs/${id}/contract?published=`);
      await expect(page.getByText('openapi-3.1.json')).toBeVisible();
      await page
        .getByRole('button', { name: /things?$/ })
        .first()
        .click();
    },
  ],
  [
    'Mock, migration',
    async ({ page, isomeros, id }) => {
      const { items } = await isomeros.ask<{ items: [{ id: string }] }>('GET', `/api/mocks?design=${id}`);
      await isomeros.ask('POST', `/api/mocks/${items[0].id}/records`, {
        Route: [{ name: 'Far', length: 'far' }],
      });
      await isomeros.ask('PUT', `/api/designs/${id}/model`, { text: TEXT.replace('text(0..9)', 'integer') });
      await page.goto(`${isomeros.url}/designs/${id}/mock`);
      await page.getByRole('button', { name: 'Migrate' }).click();
      await expect(page.getByRole('region', { name: 'Migration' })).toContainText('to decide');
    },
  ],
  [
    'Nothing there',
    async ({ page, isomeros }) => {
      await page.goto(`${isomeros.url}/nowhere`);
      await expect(page.getByText('There is no page at this address')).toBeVisible();
    },
  ],
];

/** What moves and comes to an end. */
const countTransitions = (): number =>
  document.getAnimations().filter((animation) => animation instanceof CSSTransition).length;

/** Each look with the rules it is judged by: the dark one differs from the light one in its colours alone. */
const LOOKS: Readonly<Record<'light' | 'dark', (axe: AxeBuilder) => AxeBuilder>> = {
  light: (axe) => axe,
  dark: (axe) => axe.withRules(['color-contrast', 'link-in-text-block']),
};

for (const look of ['light', 'dark'] as const) {
  test(`every view is open to assistive technology, ${look}`, async ({ page, isomeros }) => {
    await page.addInitScript((chosen) => localStorage.setItem('isomeros.look', chosen), look);
    const id = await isomeros.createDesign(TEXT);
    await isomeros.ask('POST', `/api/designs/${id}/releases`, { label: '1.0', arrangement: 'main' });
    for (const [name, go] of VIEWS)
      await test.step(name, async () => {
        await go({ page, isomeros, id });
        // Colours are what they will be once nothing moves any more.
        await expect.poll(() => page.evaluate(countTransitions)).toBe(0);
        // There are no frames of other origins, for whose sake it would open a page more each time.
        const axe = new AxeBuilder({ page }).setLegacyMode();
        const { violations } = await LOOKS[look](axe).analyze();
        const grave = violations.filter(({ impact }) => impact === 'serious' || impact === 'critical');
        expect
          .soft(
            grave.map(({ id: rule, nodes }) => ({
              rule,
              at: nodes.map(({ target, failureSummary }) => `${target.join(' ')}: ${failureSummary ?? ''}`),
            })),
            name,
          )
          .toEqual([]);
      });
  });
}
