import { expect, stage, test, typeAtEnd } from './support/isomeros.js';

test.use({ fresh: true });

test('a newcomer opens the sample, extends it by typing, starts the mock, and calls it', async ({
  page,
  isomeros,
}) => {
  await page.goto(isomeros.url);
  await page.getByRole('link', { name: 'Kestrel Sound Ferries' }).click();
  const tree = page.getByRole('tree', { name: 'Path tree' });
  await expect(tree.getByText('/harbours', { exact: true })).toBeVisible();

  await test.step('an attribute and an owned entity, typed', async () => {
    await typeAtEnd(
      page,
      '\nentity Meal\nname: text(1..40), required\nprice: decimal(0..99, scale 2)\n\neach Sailing owns many Meal as meals',
    );
    await expect(tree.locator('.row.new').getByText('/meals', { exact: true })).toBeVisible();
    await expect(tree.locator('.row.new')).toHaveCount(2);
    await expect(page.getByText('All changes kept')).toBeVisible();
    await expect(stage(page, 'Model')).toContainText('12 entities · 16 relationships');
  });

  await test.step('why a path is there', async () => {
    await tree.getByText('/meals', { exact: true }).click();
    const why = page.getByRole('region', { name: 'Why' });
    await expect(why).toContainText('place.nested');
    await expect(why).toContainText('each Sailing owns many Meal as meals');
  });

  await test.step('the mock, started and called from outside', async () => {
    await stage(page, 'Mock').click();
    await page.getByRole('button', { name: 'Start the mock' }).click();
    const base = (await page.getByTestId('base-url').textContent()) ?? '';
    expect(base).toMatch(/^http:\/\/127\.0\.0\.1:\d+\/api\/v1$/);
    const created = await fetch(`${base}/routes/1/sailings/1/meals`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'User-Agent': 'curl/8.0' },
      body: JSON.stringify({ name: 'Fish pie', price: 9.5 }),
    });
    expect(created.status).toBe(201);
    const location = created.headers.get('location') ?? '';
    const log = page.getByRole('listbox', { name: 'Exchange log' });
    await expect(log.getByText('createMeal')).toBeVisible();
    const happened = page.getByRole('region', { name: 'What happened' });
    await expect(happened).toContainText('Fish pie');
    await expect(stage(page, 'Mock')).toContainText('1 exchange');
    const meal: unknown = await (await fetch(new URL(location, base))).json();
    expect(meal).toMatchObject({ name: 'Fish pie', price: 9.5 });
    await expect(log.getByText('readMeal')).toBeVisible();
  });

  await test.step('still there after a restart', async () => {
    const written = async (): Promise<number> => {
      const { items } = await isomeros.ask<{ items: { journal: { bytes: number } }[] }>('GET', '/api/mocks');
      return items[0]?.journal.bytes ?? 0;
    };
    await expect.poll(written).toBeGreaterThan(0);
    await isomeros.end('SIGKILL');
    await isomeros.start();
    await page.reload();
    // Somebody else may have had the port meanwhile.
    const base = (await page.getByTestId('base-url').textContent()) ?? '';
    const meals = (await (await fetch(`${base}/routes/1/sailings/1/meals?name=Fish+pie`)).json()) as {
      items: unknown[];
    };
    expect(meals.items).toHaveLength(1);
    const log = page.getByRole('listbox', { name: 'Exchange log' });
    await expect(log.getByText('createMeal')).toBeVisible();
  });
});
