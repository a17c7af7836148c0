import type { Chapter } from './layout.js';
import { OWNED, REFERS, SLOT, THREE } from './models.js';

const ONLY_ROUTES = ['/routes: list create', '/routes/{routeId}: read replace change remove'];

export const INLINE: Chapter = {
  title: 'Inline',
  layouts: [
    {
      name: 'What is owned stands inside its owner, is written with it, and has no path.',
      model: OWNED,
      placements: { 'Route>Sailing:sailings': 'inline' },
      paths: ONLY_ROUTES,
      members: [
        'Route: id! sailings!',
        'Route.create: sailings',
        'Route.replace: id sailings!',
        'Route.change: id sailings',
        'Sailing: id! name!',
        'Sailing.create: name',
        'Sailing.inline: id name',
      ],
    },
    {
      name: 'What something inline owns can stand inside it too.',
      model: THREE,
      placements: { 'Route>Sailing:sailings': 'inline', 'Sailing>Booking:bookings': 'inline' },
      paths: ONLY_ROUTES,
      members: ['Route: id! sailings!', 'Sailing: id! bookings!', 'Booking.inline: id'],
    },
    {
      name: 'What something inline owns has no path otherwise.',
      model: THREE,
      placements: { 'Route>Sailing:sailings': 'inline' },
      paths: ONLY_ROUTES,
      findings: ['entity.unreachable Booking'],
    },
    {
      name: 'A slot stands inside its owner as an object.',
      model: SLOT,
      placements: { 'Vessel>Paper:paper': 'inline' },
      paths: ['/vessels: list create', '/vessels/{vesselId}: read replace change remove'],
      members: ['Vessel: id! paper!', 'Vessel.create: paper', 'Vessel.replace: id paper'],
    },
    {
      name: 'What a reference points at can be shown inside, beside its key.',
      model: REFERS,
      placements: { 'Route>Harbour:origin': 'inline' },
      paths: [
        '/harbours: list create',
        '/harbours/{harbourId}: read replace change remove',
        '/harbours/{harbourId}/departures: list',
        '/routes: list create',
        '/routes/{routeId}: read replace change remove',
      ],
      members: ['Route: id! originId! origin', 'Route.create: originId', 'Route.replace: id originId origin'],
    },
  ],
};
