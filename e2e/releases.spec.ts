import { convention, follows, path, TEXT, tree } from './support/arranging.js';
import { expect, press, stage, test } from './support/isomeros.js';

test('what would break a release is told before a branch is let go, and found afterwards', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/contract`);
  await page.getByRole('button', { name: 'Release', exact: true }).click();
  await page.getByLabel('Label of the release').fill('1.0');
  await page.getByRole('button', { name: 'Release it' }).click();
  const release = page.getByRole('region', { name: 'Release 1.0' });
  await expect(release.getByText('Nothing has changed since.')).toBeVisible();

  const stages = page.getByRole('navigation', { name: 'Stages' });
  await stages.getByRole('link', { name: 'Arrange' }).click();
  await path(page, '/shift-plans').click();
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(follows(page)).toContainText('breaks a release in');
  await expect(follows(page)).toContainText(
    'Breaks 1.0 for senders: GET, POST /api/v1/crew-members/{crewMemberId}/shift-plans are /api/v1/shift-plans now.',
  );
  await page.keyboard.press('Enter');
  await expect(stages).toContainText('breaking');
  await expect(tree(page).getByRole('img', { name: 'a finding: breaking' }).first()).toBeVisible();

  await stages.getByRole('link', { name: 'Contract' }).click();
  await page.getByRole('group', { name: 'Releases' }).getByRole('button', { name: '1.0' }).click();
  const moved = release.getByRole('button', { name: /shift-plans are \/api\/v1\/shift-plans now/ });
  // What comes from one decision stands together, with the way back beside it.
  await expect(release.getByRole('button', { name: 'Take it back', exact: true })).toHaveCount(2);
  await release
    .getByRole('button', { name: /^Show all/ })
    .first()
    .click();
  await moved.click();
  await expect(release.getByText('place.flat')).toBeVisible();

  await stages.getByRole('link', { name: 'Arrange' }).click();
  const version = convention(page, 'Version').getByRole('textbox');
  await version.fill('v2');
  await press(version);
  await expect(stages).not.toContainText('breaking');
});

test('a label is used once, and a release can be taken back', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign(TEXT);
  await isomeros.ask('POST', `/api/designs/${id}/releases`, { label: '1.0', arrangement: 'main' });
  await page.goto(`${isomeros.url}/designs/${id}/contract`);
  await page.getByRole('button', { name: 'Release', exact: true }).click();
  await page.getByLabel('Label of the release').fill('1.0');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('There is a release 1.0 already');
  await page.keyboard.press('Escape');
  await page.getByRole('group', { name: 'Releases' }).getByRole('button', { name: '1.0' }).click();
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(page.getByText('none yet: nobody relies on this contract')).toBeVisible();
});

test('a release goes on holding its arrangement under another name', async ({ page, isomeros }) => {
  const id = await isomeros.createDesign(TEXT);
  await isomeros.ask('POST', `/api/designs/${id}/releases`, { label: '1.0', arrangement: 'main' });
  await isomeros.ask('PUT', `/api/designs/${id}/arrangements/main`, {
    settings: {},
    placements: { 'CrewMember>ShiftPlan:shiftPlans': 'flat' },
  });
  await page.goto(`${isomeros.url}/designs/${id}/contract`);
  const stages = page.getByRole('navigation', { name: 'Stages' });
  await expect(stages).toContainText('breaking');
  await page.getByRole('button', { name: 'main ▾' }).click();
  await page.getByRole('button', { name: 'Rename main' }).click();
  await page.getByLabel('New name of main').fill('shore');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'shore ▾' })).toBeVisible();
  const releases = page.getByRole('group', { name: 'Releases' });
  await expect(releases).toContainText('1.0');
  await expect(releases).not.toContainText('main');
  await expect(stages).toContainText('breaking');
});

test('a release is served beside what comes after it, says that it ends, and gets records of its own in time', async ({
  page,
  isomeros,
}) => {
  const text = 'entity Route\n  name: text(1..60), required\n  state: choice(open, closed)\n';
  const id = await isomeros.createDesign(text);
  await isomeros.ask('POST', `/api/designs/${id}/releases`, { label: '1.0', arrangement: 'main' });
  await isomeros.ask('PUT', `/api/designs/${id}/arrangements/main`, { settings: { version: 'v2' } });
  await page.goto(`${isomeros.url}/designs/${id}/contract`);
  await page.getByRole('button', { name: '1.0', exact: true }).click();
  const end = page.getByRole('form', { name: 'End of the release' });
  await end.getByLabel('Deprecated from').fill('2026-11-01');
  await end.getByLabel('Stops on').fill('2027-06-30');
  await end.getByRole('button', { name: 'Announce' }).click();
  await expect(page.getByRole('group', { name: 'Releases' })).toContainText('deprecated');

  await stage(page, 'Mock').click();
  await page.getByRole('checkbox', { name: '1.0' }).check();
  await page.getByRole('button', { name: 'Start the mock' }).click();
  const served = page.getByRole('group', { name: 'What is served' });
  const main = (await page.getByTestId('base-url').textContent()) ?? '';
  await served.getByRole('button', { name: 'release 1.0' }).click();
  await expect(page.getByTestId('base-url')).toContainText('/api/v1');
  const release = (await page.getByTestId('base-url').textContent()) ?? '';
  await page.getByRole('button', { name: 'Send' }).click();
  await expect(page.getByText('Deprecation: @1793491200')).toBeVisible();
  await expect(page.getByText('Sunset: Wed, 30 Jun 2027 00:00:00 GMT')).toBeVisible();

  await isomeros.ask('PUT', `/api/designs/${id}/model`, { text: text.replace('closed', 'closed, seasonal') });
  const patch = (body: object): Promise<number> =>
    fetch(`${main}/routes/1`, {
      method: 'PATCH',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    }).then(({ status }) => status);
  await expect.poll(() => patch({ name: 'Apart', state: 'seasonal' })).toBe(200);
  await served.getByRole('button', { name: 'main' }).click();
  await expect(served).toContainText('release 1.0 with its own records');
  expect(await (await fetch(`${release}/routes/1`)).json()).not.toMatchObject({ state: 'seasonal' });
});

test('a release is served alone, and the arrangements beside it when they are asked for', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await isomeros.ask('POST', `/api/designs/${id}/releases`, { label: '1.0', arrangement: 'main' });
  await page.goto(`${isomeros.url}/designs/${id}/contract`);
  await page.getByRole('button', { name: '1.0', exact: true }).click();
  await page.getByRole('button', { name: 'Serve it' }).click();
  const served = page.getByRole('group', { name: 'What is served' });
  await expect(served).toHaveText('release 1.0Serve main, too');
  const release = (await page.getByTestId('base-url').textContent()) ?? '';
  expect((await fetch(`${release}/crew-members`)).status).toBe(200);
  await served.getByRole('button', { name: 'Serve main, too' }).click();
  await expect(served).toContainText('main');
  await expect(served).not.toContainText('Serve main, too');
  await served.getByRole('button', { name: 'main' }).click();
  await expect(page.getByTestId('base-url')).not.toHaveText(release);
});

test('a hundred breaks of one decision stand as one finding, with the way back beside it', async ({
  page,
  isomeros,
}) => {
  const text =
    'entity CrewMember\n  firstName: text, required\n  lastName: text\n\nentity ShiftPlan\n  firstDay: date\n';
  const id = await isomeros.createDesign(text);
  await isomeros.ask('POST', `/api/designs/${id}/releases`, { label: '1.0', arrangement: 'main' });
  await isomeros.ask('PUT', `/api/designs/${id}/arrangements/main`, { settings: { memberCase: 'pascal' } });
  await page.goto(`${isomeros.url}/designs/${id}/contract`);
  const findings = page.getByRole('list', { name: 'Findings' });
  await expect(findings).toContainText(/Members pascal: \d+ breaks at \d+ paths/);
  await expect(findings.getByRole('listitem')).toHaveCount(2);
  await findings.getByRole('button', { name: /^Show all/ }).click();
  await expect(findings).toContainText('Breaks 1.0 for readers');
  await findings.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText('Breaks 1.0')).toHaveCount(0);
});
