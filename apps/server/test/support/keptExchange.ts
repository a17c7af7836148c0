import { arrangementOf, NO_CHOICES } from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import { parse } from '@isomeros/core/notation';
import type { KeptExchange } from '../../src/mocks/journal/keptExchange.js';
import { ROUTES } from './models.js';

export const routesContract = derive(parse(ROUTES).model, arrangementOf('main', NO_CHOICES));

/** An exchange as a mock hands it to its journal. */
export const keptExchange = (
  target: string,
  answer: string,
  more: Partial<KeptExchange> = {},
): KeptExchange => ({
  number: 0,
  contract: routesContract,
  at: Date.UTC(2026, 10, 26),
  microseconds: 1_234,
  arrangement: 'main',
  client: 'unknown',
  operation: 'listRoutes',
  method: 'GET',
  target,
  sentTarget: target,
  version: 'HTTP/1.1',
  sentHeaders: ['Host', 'localhost'],
  body: { kind: 'none' },
  response: { status: 200, headers: [['ETag', '"1"']], body: answer },
  isPage: false,
  trace: [],
  started: 0,
  times: [],
  records: [],
  size: 0,
  isLean: false,
  ...more,
});
