import { addOperation, convention } from './support/arranging.js';
import { curl } from './support/curl.js';
import { expect, test } from './support/isomeros.js';

const TEXT = `design "Shore desk"

entity Sailing
  departsAt: instant, required
  places: integer(0..), required
  left: integer, computed places - count of bookings where state != cancelled
  berth: text(1..4)

entity Booking
  contact: email, required
  state: choice(held, cancelled), default held
    cancel: held -> cancelled

each Sailing owns many Booking as bookings, back as sailing
`;

test('what no rule derives: each added by its line, called with curl, seen in trace and contract', async ({
  page,
  isomeros,
}) => {
  const id = await isomeros.createDesign(TEXT);
  await page.goto(`${isomeros.url}/designs/${id}/arrange`);
  const add = addOperation(page);
  await add(
    '/sailings',
    'an operation',
    'nextDepartures',
    'first 2 where departsAt >= input since by departsAt',
  );
  await add('/sailings', 'an operation', 'newest', 'one by departsAt desc');
  await add('/sailings', 'an operation', 'capacity', 'sum of places');
  await add(
    '/{sailingId}',
    'an action',
    'moor',
    'set berth = input side (port P1, starboard S1) accepts reason: text(..20), required',
  );
  await add('/{sailingId}', 'an action', 'booked', 'count of bookings where state = held');
  await add('/bookings', 'an operation', 'contactAgain', 'accepts email, required, equals contact');
  await add('/bookings', 'an operation', 'cancelHeld', 'all where state = held do cancel');
  await page.getByLabel('Find a setting').fill('one record in json');
  await convention(page, 'One record in JSON').getByRole('combobox').click();
  await page.getByTitle('in a member of answers', { exact: true }).click();
  await expect(page.getByText('All changes kept')).toBeVisible();

  const mock = await isomeros.createMock(id, { Sailing: 0, Booking: 0 });
  const made = [
    { departsAt: '2026-06-01T08:00:00Z', places: 3 },
    { departsAt: '2026-06-02T08:00:00Z', places: 5 },
    { departsAt: '2026-06-03T08:00:00Z', places: 8 },
  ];
  for (const sailing of made)
    expect(await curl('POST', `${mock}/sailings`, sailing)).toMatchObject({
      status: 201,
      body: { data: { ...sailing, left: sailing.places } },
    });
  const since = `${mock}/sailings/next-departures?since=2026-06-02T00:00:00Z`;
  expect(await curl('GET', since)).toMatchObject({ body: { items: [made[1], made[2]] } });
  expect((await curl('GET', `${mock}/sailings/next-departures`)).status).toBe(400);
  expect(await curl('GET', `${mock}/sailings/newest`)).toMatchObject({ body: { data: made[2] } });
  expect((await curl('GET', `${mock}/sailings/capacity`)).body).toEqual({ capacity: 16 });
  const mooring = { side: 'port', reason: 'wind' };
  expect(await curl('POST', `${mock}/sailings/1/moor`, mooring)).toMatchObject({
    body: { data: { berth: 'P1' } },
  });
  expect((await curl('POST', `${mock}/sailings/1/moor`, { side: 'port' })).status).toBe(400);
  const bookings = `${mock}/sailings/1/bookings`;
  const contact = 'ada@harbour.example';
  expect((await curl('POST', bookings, { contact, contactAgain: 'eda@harbour.example' })).status).toBe(400);
  expect((await curl('POST', bookings, { contact, contactAgain: contact })).status).toBe(201);
  expect((await curl('GET', `${mock}/sailings/1/booked`)).body).toEqual({ booked: 1 });
  expect(await curl('GET', `${mock}/sailings/1`)).toMatchObject({ body: { data: { left: 2 } } });
  expect((await curl('POST', `${bookings}/cancel-held`)).body).toEqual({ found: 1, changed: 1 });
  expect((await curl('GET', `${mock}/sailings/1/booked`)).body).toEqual({ booked: 0 });

  await page.goto(`${isomeros.url}/designs/${id}/mock`);
  await page.getByText('/api/v1/sailings/1/booked').first().click();
  await expect(page.getByText('readSailingBooked').first()).toBeVisible();
  await expect(page.getByText('an aggregate').first()).toBeVisible();
  await page.goto(`${isomeros.url}/designs/${id}/contract`);
  for (const word of ['/next-departures', '/newest', '/capacity', '/booked', '/moor', '/cancel-held'])
    await expect(page.getByText(word).first()).toBeVisible();
});
