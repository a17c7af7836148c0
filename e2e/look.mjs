import { chromium } from '@playwright/test';
const b = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
});
const page = await b.newPage({ viewport: { width: 1280, height: 800 } });
const designs = (await (await fetch('http://127.0.0.1:4800/api/designs')).json()).items;
const id = designs.find((d) => d.name.includes('Kestrel')).id;
await page.goto(`http://127.0.0.1:4800/designs/${id}/arrange`);
await page.getByText('/sailings', { exact: true }).first().waitFor();
await page.locator('.tree-row, [role=option]').filter({ hasText: '/sailings' }).first().click();
await page.getByRole('button', { name: 'Dark' }).click();
await page.keyboard.press('Alt+ArrowRight');
await page.waitForTimeout(500);
await page.screenshot({ path: '/tmp/l2.png' });
await page.keyboard.press('Escape');
await page.goto(`http://127.0.0.1:4800/designs/${id}/contract?release=1.0`);
await page.getByText('breaking', { exact: false }).first().waitFor();
await page.waitForTimeout(800);
await page.locator('.changes li button').nth(1).click();
await page.screenshot({ path: '/tmp/l4.png' });
await page.getByRole('button', { name: 'Light' }).click();
await page.goto(`http://127.0.0.1:4800/designs/${id}/model`);
await page.waitForTimeout(1500);
await page.screenshot({ path: '/tmp/l5.png' });
await b.close();
