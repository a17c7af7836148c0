import { addOperation, convention, path } from './support/arranging.js';
import { expect, test } from './support/isomeros.js';

const TEXT = `design "Crew doors"

entity Keeper
  email: email, required, unique
  password: text(8..80), required, write-only
  rank: choice(mate, master), default mate

entity Booking
  seats: integer(1..9), required
  state: choice(held, cancelled), default held
    cancel: held -> cancelled

entity Settings
  currency: text(3..3), required, default "KSD"
`;

test('a sign-in, an action on many, one record at the root and a fixed answer, each added where it is said', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  const add = addOperation(page);
  await page.getByLabel('Find a setting').fill('credentials');
  await convention(page, 'Credentials').getByRole('combobox').click();
  await page.getByTitle('bearer', { exact: true }).click();
  await page.keyboard.press('Escape');
  await add(
    '/keepers',
    'an operation',
    'signIn',
    'verify email = input email and password = input password answers token for 8 hours with role from rank',
  );
  await add('/keepers', 'an operation', 'me', 'caller');
  await add('/keepers', 'an operation', 'signOut', 'revoke token');
  await add('/bookings', 'an operation', 'cancelThese', 'ids do cancel');
  await add('/api/v1', 'a fixed answer', 'health', 'answers { "status": "up", "version": version }');
  await page.getByRole('combobox', { name: 'Place of Settings' }).click();
  await page.getByRole('option', { name: /^singleton/ }).click();
  await path(page, '/sign-in').click();
  const example = page.getByLabel('Example exchange');
  await expect(example).toContainText('"password": "***"');
  await expect(example).toContainText('"token_type": "Bearer"');
  await expect(page.getByText('All changes kept')).toBeVisible();

  const mock = await isomeros.createMock(id, { Keeper: 0, Booking: 0 });
  const send = async (method: string, at: string, body: object | null, bearer: string): Promise<Response> =>
    fetch(mock + at, {
      method,
      headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${bearer}` },
      ...(body === null ? {} : { body: JSON.stringify(body) }),
    });
  const ada = { email: 'ada@harbour.example', password: 'harbour lights' };
  expect((await send('POST', '/keepers', ada, 'user-secret')).status).toBe(201);
  expect((await send('POST', '/keepers/sign-in', { ...ada, password: 'other lights' }, '')).status).toBe(401);
  for (const seats of [1, 2, 3])
    expect((await send('POST', '/bookings', { seats }, 'user-secret')).status).toBe(201);
  const signed = (await (await send('POST', '/keepers/sign-in', ada, '')).json()) as { access_token: string };
  const token = signed.access_token;
  expect(await (await send('GET', '/me', null, token)).json()).toMatchObject({
    email: ada.email,
    rank: 'mate',
  });
  expect(await (await send('POST', '/bookings/cancel-these', { ids: [1, 2] }, token)).json()).toEqual({
    found: 2,
    changed: 2,
  });
  expect((await send('POST', '/bookings/cancel-these', { ids: [2, 3] }, token)).status).toBe(409);
  expect(await (await send('PATCH', '/settings', { currency: 'EUR' }, token)).json()).toMatchObject({
    currency: 'EUR',
  });
  expect(await (await send('GET', '/health', null, token)).json()).toEqual({ status: 'up', version: 'v1' });
  expect((await send('POST', '/keepers/sign-out', null, token)).status).toBe(204);
  expect((await send('GET', '/me', null, token)).status).toBe(401);

  await page.goto(`${isomeros.url}/designs/${id}/mock`);
  await page.getByText('/api/v1/keepers/sign-in').first().click();
  await expect(page.getByText('signInKeeper').first()).toBeVisible();
  await expect(page.getByText(token)).toHaveCount(0);
  await page.goto(`${isomeros.url}/designs/${id}/contract`);
  await expect(page.getByText('/sign-in').first()).toBeVisible();
});
