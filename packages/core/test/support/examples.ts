import type { NamedExample } from '@isomeros/core/arrangement';

/** A small example, as a design keeps it. */
export const EXAMPLE: NamedExample = {
  id: 'north',
  name: 'The north route',
  operation: 'Route/item:read',
  ids: [{ of: 'Route/item', value: '1' }],
  query: 'fields=name',
  headers: { accept: 'application/json' },
  body: null,
  members: { name: 'Route.name' },
  records: [{ rid: 1, entity: 'Route', values: { 'Route#id': 1, 'Route.name': 'North' }, revision: 1 }],
  now: 1_781_428_320_000,
  status: 200,
};
