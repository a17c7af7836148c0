import { execFile } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { promisify } from 'node:util';
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, press, test, type Isomeros } from './support/isomeros.js';

const run = promisify(execFile);

const sample = async (isomeros: Isomeros): Promise<string> => {
  const source = { format: 'sample', text: 'kestrel-sound-ferries' };
  const { id } = await isomeros.ask<{ id: string }>('POST', '/api/designs', { source });
  // Other tests look for the sample by its name.
  await isomeros.ask('PUT', `/api/designs/${id}/name`, { name: 'Published ferries' });
  return id;
};

const published = async (isomeros: Isomeros, design: string, format: string): Promise<string> => {
  const at = `${isomeros.url}/api/designs/${design}/arrangements/main/publications/${format}`;
  return (await fetch(at)).text();
};

/** A folder of its own, removed afterwards. */
async function inFolder(work: (folder: string) => Promise<void>): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'isomeros-published-'));
  try {
    await work(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

test('documents are listed with what they cannot say, to be copied and kept, of the draft and of a release', async ({
  page,
  isomeros,
}) => {
  const id = await sample(isomeros);
  await isomeros.ask('POST', `/api/designs/${id}/releases`, { label: '1.0', arrangement: 'main' });
  await page.goto(`${isomeros.url}/designs/${id}/contract`);
  await page.getByRole('button', { name: 'Published documents' }).click();
  const rows = page.getByRole('article', { name: 'Publications' }).getByRole('row');
  const older = rows.filter({ hasText: 'openapi-3.0.json' });
  await older.getByRole('button', { name: /things/ }).click();
  await expect(page.getByRole('list', { name: 'What openapi-3.0.json cannot say' })).toContainText(
    'nullable',
  );
  const kept = page.waitForEvent('download');
  await rows.filter({ hasText: 'types.d.ts' }).getByRole('link', { name: 'Download types.d.ts' }).click();
  const download = await kept;
  expect(download.suggestedFilename()).toBe('types.d.ts');
  expect(readFileSync(await download.path(), 'utf8')).toBe(await published(isomeros, id, 'types.d.ts'));
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  const copy = rows.filter({ hasText: 'mariadb.sql' }).getByRole('button', { name: 'Copy mariadb.sql' });
  await copy.click();
  await expect(copy).toHaveText('Copied');
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(
    await published(isomeros, id, 'mariadb.sql'),
  );
  await page.getByText('1.0', { exact: true }).last().click();
  await expect(rows.getByRole('link', { name: 'openapi-3.1.json', exact: true })).toHaveAttribute(
    'href',
    `/api/designs/${id}/releases/1.0/publications/openapi-3.1.json`,
  );
  await page.getByLabel('with the address of the mock, in OpenAPI').check();
  await expect(rows.getByRole('link', { name: 'openapi-3.1.json', exact: true })).toHaveAttribute(
    'href',
    /\?server=mock$/,
  );
});

test('the reference is narrowed wherever it is opened: here, and at the mock', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign(
    'design "Docks"\n\nentity Dock\n  name: text\n\nentity Crane\n  name: text\n',
  );
  await isomeros.ask('PUT', `/api/designs/${id}/arrangements/main`, {
    settings: { apiLinks: ['service-doc'] },
  });
  const { baseUrls } = await isomeros.ask<{ baseUrls: { main: string } }>('POST', '/api/mocks', {
    design: id,
    arrangements: ['main'],
  });
  for (const at of [
    `${isomeros.url}/api/designs/${id}/arrangements/main/publications/reference.html`,
    `${baseUrls.main}/-/documentation`,
  ]) {
    await page.goto(at);
    await page.getByLabel('Find').fill('listdocks');
    await expect(page.locator('#op-listDocks')).toBeVisible();
    await expect(page.locator('#op-listCranes')).toBeHidden();
  }
});

test('the script calls every operation of a fresh mock, and each answers as it should', async ({
  isomeros,
}) => {
  const id = await sample(isomeros);
  const { baseUrls } = await isomeros.ask<{ baseUrls: { main: string } }>('POST', '/api/mocks', {
    design: id,
    arrangements: ['main'],
  });
  await inFolder(async (folder) => {
    const file = join(folder, 'curl.sh');
    writeFileSync(file, await published(isomeros, id, 'curl.sh'));
    const { stdout, stderr } = await run('sh', [file], {
      cwd: folder,
      env: { PATH: process.env['PATH'] ?? '', BASE_URL: baseUrls.main },
    });
    expect(stderr).toBe('');
    const answered = stdout.trim().split('\n');
    expect(answered.length).toBe(88);
    expect(answered.filter((line) => !line.startsWith('2'))).toEqual([]);
    await expect(
      run('sh', [file], { cwd: folder, env: { PATH: process.env['PATH'] ?? '' } }),
    ).rejects.toThrow('BASE_URL');
  });
});

const HOSTILE =
  "'; touch X; ' $(touch X) `touch X` */ </script><script>document.title='run'</script> -- | no";

test('nothing in a text runs: no command of the script, no script of the page', async ({
  page,
  isomeros,
}) => {
  const text = `design "Traps ${HOSTILE}" "${HOSTILE}"

entity Trap "${HOSTILE}"
  name: text(1..200), required, example "${HOSTILE}" "${HOSTILE}"
  kind: choice("${HOSTILE}", other), default "${HOSTILE}"
`;
  const id = await isomeros.createDesign(text);
  await isomeros.ask('PUT', `/api/designs/${id}/arrangements/main`, {
    settings: { security: ['api key'], access: 'authenticated' },
    documentation: {
      operation: {
        'Trap:list': { summary: HOSTILE, description: `# ${HOSTILE}\n\n<img src=x onerror=alert(1)>` },
      },
    },
  });
  const { baseUrls } = await isomeros.ask<{ baseUrls: { main: string } }>('POST', '/api/mocks', {
    design: id,
    arrangements: ['main'],
  });
  await inFolder(async (folder) => {
    const script = join(folder, 'curl.sh');
    writeFileSync(script, await published(isomeros, id, 'curl.sh'));
    const env = { PATH: process.env['PATH'] ?? '', BASE_URL: baseUrls.main, USER_CREDENTIAL: 'user-secret' };
    const { stderr } = await run('sh', [script], { cwd: folder, env });
    expect(stderr).toBe('');
    expect(existsSync(join(folder, 'X'))).toBe(false);
    const file = join(folder, 'reference.html');
    writeFileSync(file, await published(isomeros, id, 'reference.html'));
    await page.goto(pathToFileURL(file).href);
    await expect(page.getByRole('heading', { level: 1 })).toContainText('</script>');
    expect(await page.title()).not.toBe('run');
    expect(await page.locator('img').count()).toBe(0);
  });
});

/** Opens the reference of a design as a file, with nothing to be had from anywhere. */
async function openReference(page: Page, text: string, work: () => Promise<void>): Promise<void> {
  await inFolder(async (folder) => {
    const file = join(folder, 'reference.html');
    writeFileSync(file, text);
    await page.context().setOffline(true);
    const asked: string[] = [];
    page.on('request', (request) => asked.push(request.url()));
    await page.goto(pathToFileURL(file).href);
    await work();
    expect(asked).toEqual([pathToFileURL(file).href]);
  });
}

test('the reference is one file, in which every operation is found, and which can be printed', async ({
  page,
  isomeros,
}) => {
  const id = await sample(isomeros);
  const contract = JSON.parse(await published(isomeros, id, 'contract.json')) as {
    operations: readonly { id: string }[];
  };
  await openReference(page, await published(isomeros, id, 'reference.html'), async () => {
    const find = page.getByLabel('Find');
    await find.fill('listsailings');
    await expect(page.locator('#op-listSailings')).toBeVisible();
    await expect(page.locator('#op-listRoutes')).toBeHidden();
    const lost = await find.evaluate(
      (field: HTMLInputElement, ids) =>
        ids.filter((operation) => {
          field.value = operation;
          field.dispatchEvent(new Event('input'));
          return document.getElementById(`op-${operation}`)?.checkVisibility() !== true;
        }),
      contract.operations.map((operation) => operation.id),
    );
    expect(lost).toEqual([]);
    await find.fill('nothing of the kind');
    await expect(page.getByRole('status')).toHaveText('0 found');
    await press(find, 'Escape');
    await press(page.locator('body'), '/');
    await expect(find).toBeFocused();
    await page.emulateMedia({ media: 'print' });
    await expect(page.getByRole('navigation')).toBeHidden();
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  });
});

test('the reference is open to everybody, light and dark', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign(
    'design "Boats" "With *oars*."\n\nentity Boat "Floats"\n  name: text(1..60), required, example "Gull"\n',
  );
  await openReference(page, await published(isomeros, id, 'reference.html'), async () => {
    for (const colorScheme of ['light', 'dark'] as const) {
      await page.emulateMedia({ colorScheme });
      const { violations } = await new AxeBuilder({ page }).setLegacyMode().analyze();
      expect(violations.map(({ id: rule, nodes }) => [rule, nodes[0]?.html])).toEqual([]);
    }
  });
});
