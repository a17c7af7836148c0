import { expect } from '@jest/globals';
import type { SettingValues } from '@isomeros/core/arrangement';
import { arranged } from './arrangement.js';
import { TestMock } from './mock.js';
import { modelOf } from './models.js';

/** Routes that can be filtered and sorted by members of several types. */
export const ROUTES = `entity Harbour
  code: text(1..5), key

entity Route
  name: text(1..20)
  distance: decimal(0.., scale 1)
  opened: date
  state: choice(open, shut)
  fast: boolean

each Route refers to optional Harbour as origin
`;

export const routesMock = (settings: SettingValues = {}): TestMock =>
  new TestMock(modelOf(ROUTES), { Route: 0, Harbour: 3 }, arranged(settings));

export interface RouteBody {
  readonly id: number;
  readonly name: string | null;
  readonly distance: number | null;
  readonly opened: string | null;
}

export const madeRoutes = (mock: TestMock, ...bodies: readonly object[]): void => {
  for (const body of bodies) expect(mock.send('POST', '/api/v1/routes', body).status).toBe(201);
};

export const routeNames = (mock: TestMock, query: string): (string | null)[] => {
  const answer = mock.send('GET', `/api/v1/routes?${query}`);
  expect([query, answer.status]).toEqual([query, 200]);
  return (answer.body as { items: RouteBody[] }).items.map(({ name }) => name);
};
