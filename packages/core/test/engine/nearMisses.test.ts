import { describe, expect, test } from '@jest/globals';
import { arrangementOf, NO_CHOICES, plainArrangement } from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import { nearMisses } from '@isomeros/core/engine';
import { modelOf } from '../support/models.js';

const MODEL = `entity Route
entity Sailing
each Route owns many Sailing as sailings
entity Port
  code: text(1..20), key`;

const newest = {
  id: 'c1',
  name: 'newest',
  entity: 'Port',
  effect: { kind: 'query' as const, filters: [], order: [], limit: 3 },
};
const own = { ...plainArrangement('main'), customOperations: [newest] };
const contract = derive(modelOf(MODEL), arrangementOf('main', { ...NO_CHOICES, arrangements: [own] }));

const CASES: readonly (readonly [method: string, target: string, others: readonly string[]])[] = [
  ['GET', '/api/v1/routes', ['createRoute: it is for POST']],
  ['HEAD', '/api/v1/routes', ['createRoute: it is for POST']],
  [
    'POST',
    '/api/v1/routes/1',
    [
      'readRoute: it is for GET',
      'replaceRoute: it is for PUT',
      'changeRoute: it is for PATCH',
      'removeRoute: it is for DELETE',
    ],
  ],
  ['GET', '/api/v1/ports/newest', ['readPort: a literal segment wins over an id']],
  ['GET', '/api/v1/routes/1/sailing', ['listSailings: sailing instead of sailings']],
  ['POST', '/api/v2/routes', ['createRoute: begins with /api/v1']],
  ['GET', '/ports', ['listPorts: begins with /api/v1']],
  ['GET', '/v1/ports/KSH', ['readPort: begins with /api/v1']],
  ['GET', '/api/ports', ['listPorts: begins with /api/v1']],
  ['DELETE', '/routes/1', ['removeRoute: begins with /api/v1']],
  ['GET', '/api/v1/Ports', ['listPorts: Ports instead of ports']],
  ['GET', '/port', ['listPorts: begins with /api/v1, port instead of ports']],
  ['PUT', '/api/v1/ports', ['listPorts: it is for GET', 'createPort: it is for POST']],
  [
    'GET',
    '/api/v1/sailings',
    ['listSailings: stands below /routes/{routeId}', 'readSailing: sailings instead of routes'],
  ],
  ['GET', '/favicon.ico', ['readEntry: everything begins here']],
  ['GET', '/', ['readEntry: begins with /api/v1']],
  ['GET', `/${'x/'.repeat(3_000)}`, ['readEntry: everything begins here']],
  ['GET', '/%ff', []],
];

describe('operations that a request was not for', () => {
  test.each(CASES)('%s %s', (method, target, others) => {
    const found = nearMisses(contract, { method, target });
    expect(found.map(({ operation, why }) => `${operation}: ${why}`)).toEqual(others);
  });

  test('are named with where they are', () => {
    expect(nearMisses(contract, { method: 'GET', target: '/api/v1/ports/newest' })).toMatchObject([
      { address: 'GET /api/v1/ports/{portCode}' },
    ]);
  });
});
