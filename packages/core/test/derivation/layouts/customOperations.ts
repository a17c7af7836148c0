import type { CustomEffect, CustomOperation } from '@isomeros/core/arrangement';
import type { Chapter } from './layout.js';
import { OWNED } from './models.js';

const TRIP = 'entity Trip\n  name: text, required\n  price: decimal, read-only\n  left: instant';
const TRIPS = ['/trips: list create', '/trips/{tripId}: read replace change remove'];
const custom = (name: string, effect: CustomEffect, entity = 'Trip'): CustomOperation => ({
  id: name,
  name,
  entity,
  effect,
});
const NOW = { kind: 'now' } as const;
const literal = (value: string | number): { kind: 'literal'; value: string | number } => ({
  kind: 'literal',
  value,
});

export const CUSTOMS: Chapter = {
  title: "Operations of one's own",
  layouts: [
    {
      name: 'A query stands below the collection it looks through, and is linked from it.',
      model: TRIP,
      customOperations: [
        custom('newest', {
          kind: 'query',
          filters: [],
          order: [{ member: 'Trip.left', descending: true }],
          limit: 3,
        }),
      ],
      paths: ['/trips: list create', '/trips/newest: list', TRIPS[1] ?? ''],
      links: ['/trips: newest → /trips/newest', '/trips/newest: up → /trips'],
      members: ['Trip.newest.page: items!'],
      parameters: ['/trips/newest:'],
      reasons: ['/trips/newest: place.custom'],
    },
    {
      name: 'What assigns values stands below the item, and takes what is to be sent.',
      model: TRIP,
      customOperations: [
        custom('settle', {
          kind: 'assign',
          when: [{ member: 'Trip.left', operator: '<', value: NOW }],
          values: [
            { member: 'Trip.price', value: literal(5) },
            { member: 'Trip.name', value: { kind: 'input' } },
          ],
        }),
      ],
      paths: [...TRIPS, '/trips/{tripId}/settle: custom'],
      links: ['/trips/{tripId}: settle → /trips/{tripId}/settle'],
      members: ['Trip.settle.input: name!'],
    },
    {
      name: 'What makes a related record answers that record.',
      model: OWNED,
      customOperations: [
        custom(
          'plan',
          { kind: 'create', when: [], relationship: 'Route>Sailing:sailings', values: [] },
          'Route',
        ),
      ],
      paths: [
        '/routes: list create',
        '/routes/{routeId}: read replace change remove',
        '/routes/{routeId}/plan: custom',
        '/routes/{routeId}/sailings: list create',
        '/routes/{routeId}/sailings/{sailingId}: read replace change remove',
      ],
      findings: ['custom.repeats plan'],
    },
    {
      name: 'What the model does not allow is left out, with a finding.',
      model: TRIP,
      customOperations: [
        custom('rename', {
          kind: 'assign',
          when: [],
          values: [{ member: 'Trip.name', value: { kind: 'unset' } }],
        }),
        custom('gone', {
          kind: 'query',
          filters: [],
          order: [{ member: 'Trip.gone', descending: false }],
          limit: 1,
        }),
      ],
      paths: TRIPS,
      findings: ['custom.unfit rename', 'custom.unfit gone'],
    },
    {
      name: 'A query that looks for nothing repeats the list.',
      model: TRIP,
      customOperations: [custom('all', { kind: 'query', filters: [], order: [], limit: 9 })],
      paths: ['/trips: list create', '/trips/all: list', TRIPS[1] ?? ''],
      findings: ['custom.repeats all'],
    },
    {
      name: 'A query shadows an id of the same text, which no create takes.',
      model: 'entity Port\n  code: text(3..9), key\n  name: text',
      customOperations: [
        custom(
          'northern',
          { kind: 'query', filters: [], order: [{ member: 'Port.name', descending: false }], limit: 2 },
          'Port',
        ),
      ],
      paths: [
        '/ports: list create',
        '/ports/northern: list',
        '/ports/{portCode}: read replace change remove',
      ],
      findings: ['path.shadows northern/custom'],
    },
  ],
};
