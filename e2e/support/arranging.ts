import { expect, type Locator, type Page } from '@playwright/test';

/** A design with something owned, and a life cycle. */
export const TEXT = `design "Arranged"

entity CrewMember
  name: text(1..60), required

entity ShiftPlan
  day: date
  state: choice(open, shut), default open
    close: open -> shut

each CrewMember owns many ShiftPlan as shiftPlans, back as member
`;

export const tree = (page: Page): Locator => page.getByRole('tree', { name: 'Path tree' });
export const path = (page: Page, text: string): Locator =>
  tree(page)
    .getByRole('treeitem')
    .filter({ has: page.getByText(text, { exact: true }) });
export const convention = (page: Page, title: string): Locator =>
  page
    .getByRole('region', { name: 'Conventions' })
    .getByRole('listitem')
    .filter({ has: page.getByText(title, { exact: true }) });
export const follows = (page: Page): Locator => page.getByRole('region', { name: 'What would follow' });

/** Adds what no rule derives where it is said: `what` is called as on its button, such as *an operation*. */
export const addOperation =
  (page: Page) =>
  async (at: string, what: string, name: string, line: string): Promise<void> => {
    // Not the middle of the row, where its operations are let go.
    await path(page, at).getByText(at, { exact: true }).click();
    await page.getByRole('button', { name: `Add ${what}` }).click();
    const noun = what.replace(/^an? /, '');
    await page.getByLabel(`Name of the new ${noun}`).fill(name);
    await page.getByLabel(`What the new ${noun} does`).fill(line);
    await page.keyboard.press('Enter');
    await expect(page.getByLabel(`Name of ${name}`)).toBeVisible();
  };
