import { describe, expect, test } from '@jest/globals';
import { derive } from '@isomeros/core/derivation';
import { narrowingOf } from '@isomeros/core/engine';
import { indexContract } from '@isomeros/core/contract';
import fc from 'fast-check';
import { MAIN } from '../support/arrangement.js';
import { anyModel, modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';

const CONTRACT = derive(
  modelOf(`entity Route
  code: text(2..6), key
  state: choice(open, closed), default open
    close: open -> closed

entity Sailing
  berth: text(1..4)

each Route owns many Sailing as sailings
`),
  MAIN,
);

const narrowed = (method: string, target: string): readonly (readonly [string, number])[] =>
  narrowingOf(CONTRACT, { method, target }).map(({ part, left }) => [part, left]);

describe('what a target may still be for, part by part', () => {
  test.each<readonly [string, string, readonly (readonly [string, number])[]]>([
    [
      'GET',
      '/api/v1/routes/KS',
      [
        ['/api/v1', 14],
        ['/routes', 13],
        ['/KS', 11],
        ['GET', 1],
      ],
    ],
    [
      'HEAD',
      '/api/v1/routes',
      [
        ['/api/v1', 14],
        ['/routes', 13],
        ['HEAD', 1],
      ],
    ],
    [
      'POST',
      '/api/v1/routes/KS/close',
      [
        ['/api/v1', 14],
        ['/routes', 13],
        ['/KS', 11],
        ['/close', 1],
        ['POST', 1],
      ],
    ],
    [
      'GET',
      '/api/v1/boats/3',
      [
        ['/api/v1', 14],
        ['/boats', 0],
      ],
    ],
    ['GET', '/elsewhere', [['/api/v1', 0]]],
    [
      'PURGE',
      '/api/v1/routes',
      [
        ['/api/v1', 14],
        ['/routes', 13],
        ['PURGE', 0],
      ],
    ],
  ])('%s %s', (method, target, steps) => {
    expect(narrowed(method, target)).toEqual(steps);
  });

  test('those that lose say why', () => {
    const steps = narrowingOf(CONTRACT, { method: 'PUT', target: '/api/v1/routes/KS' });
    const below = [
      'listSailings',
      'createSailing',
      'readSailing',
      'replaceSailing',
      'changeSailing',
      'removeSailing',
      'closeRoute',
    ];
    expect(steps.flatMap(({ lost }) => lost)).toEqual([
      { operations: ['readEntry'], why: 'end before /routes' },
      { operations: ['listRoutes', 'createRoute'], why: 'end before /KS' },
      { operations: ['readRoute'], why: 'for GET' },
      { operations: ['changeRoute'], why: 'for PATCH' },
      { operations: ['removeRoute'], why: 'for DELETE' },
      { operations: below, why: 'go on below it' },
    ]);
  });

  test('lead to each operation of any contract by its own path', () => {
    fc.assert(
      fc.property(anyModel, (model) => {
        const contract = derive(model, MAIN);
        const { resources } = indexContract(contract);
        for (const { id, method, resource } of contract.operations) {
          const path = (resources.get(resource)?.path ?? '').replace(/\{[^}]*\}/g, '0');
          const steps = narrowingOf(contract, { method, target: contract.root + path });
          expect([id, steps.at(-1)]).toMatchObject([id, { part: method, left: 1 }]);
        }
      }),
      rounds(20),
    );
  });
});
