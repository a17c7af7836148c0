import { createSchema, dropSchema, execute } from '../apps/server/test/support/database.js';
import { expect, press, test } from './support/isomeros.js';

const DDL =
  'CREATE TABLE routes (id int AUTO_INCREMENT PRIMARY KEY, area polygon);\nCREATE TABLE stops (id int PRIMARY KEY, pin_hash text,\n  route_id int NOT NULL REFERENCES routes(id) ON DELETE CASCADE);\n';

test('DDL is read with a report; answers change it at once; then it is kept', async ({ page, isomeros }) => {
  await page.goto(isomeros.url);
  await page.getByRole('link', { name: /^SQL DDL/ }).click();
  await page.getByRole('textbox', { name: 'SQL DDL' }).fill(DDL);
  await page.getByLabel('Name of the design').fill('Read from a schema');
  await page.getByRole('button', { name: 'Read it' }).click();
  const understood = page.getByRole('region', { name: 'Understood' });
  await expect(understood).toContainText('each Route owns many Stop as stops, back as route');
  await expect(page.getByRole('region', { name: 'Left out' })).toContainText('routes.area polygon');
  const assumed = page.getByRole('region', { name: 'Assumed' });
  await expect(assumed).toContainText('May pinHash ever be returned?');
  await assumed.getByRole('button', { name: 'leave it out' }).click();
  await expect(understood).not.toContainText('pinHash');
  await assumed.getByRole('button', { name: 'yes, it refers to it' }).click();
  await expect(understood).toContainText('each Stop refers to one Route as route, back as stops');
  await understood.getByText('each Stop refers').click();
  await expect(
    page.getByRole('tree', { name: 'Lines of notation' }).locator('[aria-selected=true]'),
  ).toHaveCount(1);
  await page.getByRole('button', { name: 'Keep as a design' }).click();
  await expect(page.getByRole('heading', { name: 'Read from a schema' })).toBeVisible();
  await expect(
    page.getByRole('tree', { name: 'Path tree' }).getByText('/stops', { exact: true }).first(),
  ).toBeVisible();
});

test('the report of many tables is folded, narrowed by typing, and answered by kind', async ({
  page,
  isomeros,
}) => {
  const tables = Array.from(
    { length: 150 },
    (_, at) =>
      `CREATE TABLE t${at}_things (id int AUTO_INCREMENT PRIMARY KEY, name varchar(9), active tinyint(1), at datetime, place point);`,
  );
  await page.goto(`${isomeros.url}/intake?from=sql`);
  await page.getByRole('textbox', { name: 'SQL DDL' }).fill(tables.join('\n'));
  await page.getByRole('button', { name: 'Read it' }).click();
  const counts = page.getByRole('list', { name: 'Counts' });
  await expect(counts).toContainText('150 tables');
  await expect(counts).toContainText('750 columns 150 asked · 150 left out');
  const lines = page.getByRole('tree', { name: 'Lines of notation' });
  await expect(lines.getByRole('treeitem', { name: /^T0Thing/ })).toHaveAttribute('aria-expanded', 'false');
  await lines.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(lines).toContainText('active: boolean');
  await page.getByLabel('Narrow the report').fill('T149');
  await expect(lines.getByRole('treeitem', { expanded: true })).toHaveCount(1);
  const assumed = page.getByRole('region', { name: 'Assumed' });
  await page.getByLabel('Narrow the report').fill('');
  await expect(assumed).toContainText('150 such as: at is in UTC.');
  await press(assumed.getByRole('button', { name: 'all: no, a number' }));
  await page.getByLabel('Narrow the report').fill('active: integer');
  await expect(lines.getByText('active: integer').first()).toBeVisible();
  await expect(page.getByRole('tree', { name: 'Left out of the model' }).getByRole('treeitem')).toHaveCount(
    0,
  );
});

test('a live MariaDB schema is read where it runs', async ({ page, isomeros }) => {
  const schema = await createSchema('live');
  const url = new URL(schema);
  await execute(
    'CREATE TABLE harbours (code char(3) PRIMARY KEY, name varchar(80) NOT NULL); CREATE TABLE routes (id int AUTO_INCREMENT PRIMARY KEY, origin_code char(3) NOT NULL, FOREIGN KEY (origin_code) REFERENCES harbours (code))',
    url.pathname.slice(1),
  );
  await page.goto(`${isomeros.url}/intake?from=live`);
  await page.getByLabel('port').fill(url.port);
  await page.getByLabel('user').fill(url.username);
  await page.getByLabel('password').fill('not this one');
  await page.getByLabel('schema', { exact: true }).fill(url.pathname.slice(1));
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByRole('alert')).toContainText('with this password');
  await page.getByLabel('password').fill(decodeURIComponent(url.password));
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Understood' })).toContainText(
    'each Route refers to one Harbour as origin, back as routes',
  );
  expect(await page.content()).not.toContain(decodeURIComponent(url.password));
  await page.getByRole('button', { name: 'Keep as a design' }).click();
  await expect(
    page.getByRole('tree', { name: 'Path tree' }).getByText('/harbours', { exact: true }),
  ).toBeVisible();
  await dropSchema(schema);
});

test('a host elsewhere is asked nothing before somebody confirms it', async ({ page, isomeros }) => {
  await page.goto(`${isomeros.url}/intake?from=live`);
  await page.getByLabel('host').fill('database.invalid');
  await page.getByLabel('user').fill('reader');
  await page.getByLabel('schema', { exact: true }).fill('ferries');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByRole('alert')).toContainText('database.invalid is not on this machine');
  await page.getByLabel('The password may travel to database.invalid').check();
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByRole('alert')).toContainText('Nothing answers at database.invalid:3306.');
});

test('JSON Schema and records are read; what is none is told, and nothing is lost', async ({
  page,
  isomeros,
}) => {
  await page.goto(`${isomeros.url}/intake?from=json-schema`);
  const source = page.getByRole('textbox', { name: 'JSON Schema' });
  await source.fill('{"$defs": {"Route": ');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByRole('alert')).toContainText(
    'It is no JSON: The text ends too early. Line 1, column 21.',
  );
  await source.fill(
    '{"$defs":{"Route":{"type":"object","required":["id"],"properties":{"id":{"type":"string","format":"uuid"},"stops":{"type":"array","items":{"type":"object","properties":{"at":{"type":"string","format":"time"}}}}}}}}',
  );
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByRole('region', { name: 'Understood' })).toContainText(
    'each Route owns many Stop as stops',
  );
  await page.getByRole('button', { name: 'Discard' }).click();
  await page.getByText('Sample records', { exact: true }).click();
  await page.getByLabel('A file to read').setInputFiles({
    name: 'crew-members.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('id;name;joined\n1;Ada;2024-02-01\n2;Bo;2025-03-04\n'),
  });
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByRole('region', { name: 'Understood' })).toContainText('joined: date, required');
  await expect(page.getByLabel('Name of the design')).toHaveValue('Crew members');
  const record = page.getByLabel('What is one of these records?');
  await expect(record).toHaveValue('CrewMember');
  await record.fill('deck hand');
  await press(record);
  await expect(page.getByRole('region', { name: 'Understood' })).toContainText('entity DeckHand');
});

const DUMP = `CREATE TABLE harbours (code char(3) PRIMARY KEY, name varchar(40) NOT NULL);
CREATE TABLE routes (id int AUTO_INCREMENT PRIMARY KEY, origin_code char(3) NOT NULL REFERENCES harbours (code));
INSERT INTO harbours VALUES ('KSH', 'Kestrel Head'), ('WKH', 'Wick Haven');
INSERT INTO routes VALUES (7, 'KSH'), (9, 'XXX');
`;

test('the records of a dump are the data: a mock begins with them, by keyboard, and goes back to them', async ({
  page,
  isomeros,
}) => {
  await page.goto(`${isomeros.url}/intake?from=sql`);
  await page.getByRole('textbox', { name: 'SQL DDL' }).fill(DUMP);
  await page.getByLabel('Name of the design').fill('Dumped');
  await press(page.getByRole('button', { name: 'Read it' }));
  await expect(page.getByRole('list', { name: 'Counts' })).toContainText('4 records 1 left out');
  await expect(page.getByRole('tree', { name: 'Left out of the model' })).toContainText(
    'It refers to a record that is not there.',
  );
  const seeds = page.getByRole('checkbox', { name: 'Seed with these 3 records' });
  await expect(seeds).toBeChecked();
  await press(page.getByRole('button', { name: 'Keep as a design' }));
  await expect(page.getByRole('heading', { name: 'Dumped' })).toBeVisible();
  await press(page.getByRole('link', { name: /Mock/ }));
  await expect(page.getByRole('radio', { name: 'the 3 initial records of the design' })).toBeChecked();
  await press(page.getByRole('button', { name: 'Start the mock' }));
  await press(page.getByRole('button', { name: 'Records', exact: true }));
  const list = page.getByRole('region', { name: 'Records', exact: true });
  await expect(list).toContainText('3 in all');
  const { baseUrls } = (await isomeros.ask<{ items: { baseUrls: { main: string } }[] }>('GET', '/api/mocks'))
    .items[0] ?? { baseUrls: { main: '' } };
  const route = await fetch(`${baseUrls.main}/routes/7`);
  expect(await route.json()).toMatchObject({ id: 7, originCode: 'KSH' });
  expect((await fetch(`${baseUrls.main}/routes/7`, { method: 'DELETE' })).status).toBe(204);
  await expect(list).toContainText('2 in all');

  await page.getByText('Wick Haven').click();
  const name = page.getByRole('region', { name: 'Record', exact: true }).getByRole('row', { name: /^name/ });
  await press(name.getByRole('button', { name: 'Use as example' }));
  await expect(name).toContainText('the example');

  await press(page.getByRole('button', { name: 'Import, export, seed' }));
  await expect(page.getByRole('radio', { name: 'the 3 initial records of the design' })).toBeChecked();
  await press(page.getByRole('button', { name: 'Preview' }));
  await expect(page.getByRole('region', { name: 'Preview of the seed' })).toContainText(
    'Would give 3 records',
  );
  await press(page.getByRole('button', { name: 'Reset to them' }));
  await press(page.getByRole('button', { name: 'Reset', exact: true }).last());
  await expect.poll(async () => (await fetch(`${baseUrls.main}/routes/7`)).status).toBe(200);

  await press(page.getByRole('button', { name: 'Remove them' }));
  await press(page.getByRole('tooltip').getByRole('button', { name: 'Remove', exact: true }));
  await expect(page.getByRole('radio', { name: /initial records/ })).toHaveCount(0);
  await press(page.getByRole('button', { name: 'Reset to this seed' }));
  await press(page.getByRole('tooltip').getByRole('button', { name: 'Reset', exact: true }));
  await expect.poll(async () => (await fetch(`${baseUrls.main}/routes/1`)).status).toBe(200);
});

test('records that are not wanted are left out, and the keeping of a large source can be cancelled', async ({
  page,
  isomeros,
}) => {
  await page.goto(`${isomeros.url}/intake?from=sql`);
  await page.getByRole('textbox', { name: 'SQL DDL' }).fill(DUMP);
  await page.getByLabel('Name of the design').fill('Without records');
  await page.getByRole('button', { name: 'Read it' }).click();
  await page.getByRole('checkbox', { name: 'Seed with these 3 records' }).uncheck();
  await page.getByRole('button', { name: 'Keep as a design' }).click();
  await page.waitForURL(/\/designs\/.+\/model/);
  const { items } = await isomeros.ask<{ items: { name: string; initialRecords: number }[] }>(
    'GET',
    '/api/designs',
  );
  expect(items.find((one) => one.name === 'Without records')?.initialRecords).toBe(0);

  await page.goto(`${isomeros.url}/intake?from=records`);
  await page.getByRole('textbox', { name: 'Sample records' }).fill('berth;size\nA1;3\n');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByRole('region', { name: 'Understood' })).toContainText('entity Record');
  await page.getByRole('button', { name: 'Keep as a design' }).click();
  await page.waitForURL(/\/designs\/.+\/model/);
  await expect(
    page.getByRole('tree', { name: 'Path tree' }).getByText('/records', { exact: true }),
  ).toBeVisible();

  const lines = Array.from({ length: 60_000 }, (_, at) => `${at},Harbour ${at},${at % 9}`);
  await page.goto(`${isomeros.url}/intake?from=records`);
  await page.getByLabel('A file to read').setInputFiles({
    name: 'harbours.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`id,name,depth\n${lines.join('\n')}`),
  });
  await page.getByRole('button', { name: 'Read it' }).click();
  await page.getByRole('button', { name: 'Keep as a design' }).click({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('button', { name: 'Keep as a design' })).toBeEnabled();
  await expect(page.getByRole('heading', { name: 'Harbours' })).toBeVisible();
});
