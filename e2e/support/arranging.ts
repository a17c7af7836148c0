import type { Locator, Page } from '@playwright/test';

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
