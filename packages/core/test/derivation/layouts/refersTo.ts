import type { Chapter } from './layout.js';
import { REFERS, ROUTES } from './models.js';

export const REFERS_TO: Chapter = {
  title: 'Refers to',
  layouts: [
    {
      name: 'A member holds the key of its target; with a way back the target lists those that point at it.',
      model: REFERS,
      paths: [
        '/harbours: list create',
        '/harbours/{harbourId}: read replace change remove',
        '/harbours/{harbourId}/departures: list',
        ...ROUTES,
      ],
      links: [
        '/harbours/{harbourId}: departures → /harbours/{harbourId}/departures',
        '/routes/{routeId}: origin → /harbours/{harbourId}',
      ],
      members: ['Route: id! originId!', 'Route.create: originId'],
      reasons: ['/harbours/{harbourId}/departures: place.back'],
    },
    {
      name: 'The way back can be left out.',
      model: REFERS,
      placements: { 'Route>Harbour:origin/back': 'off' },
      paths: ['/harbours: list create', '/harbours/{harbourId}: read replace change remove', ...ROUTES],
    },
    {
      name: 'Read below: what is pointed at can be read under the record that points.',
      model: REFERS,
      placements: { 'Route>Harbour:origin': 'read', 'Route>Harbour:origin/back': 'off' },
      paths: [
        '/harbours: list create',
        '/harbours/{harbourId}: read replace change remove',
        ...ROUTES,
        '/routes/{routeId}/origin: read',
      ],
      links: ['/routes/{routeId}: origin → /routes/{routeId}/origin'],
      members: ['Route.create: originId'],
      reasons: ['/routes/{routeId}/origin: place.read'],
    },
    {
      name: 'Two references to one entity are two ways.',
      model:
        'entity Harbour\nentity Route\neach Route refers to one Harbour as origin, back as departures\neach Route refers to one Harbour as destination, back as arrivals',
      placements: { 'Route>Harbour:origin': 'read', 'Route>Harbour:destination': 'read' },
      paths: [
        '/harbours: list create',
        '/harbours/{harbourId}: read replace change remove',
        '/harbours/{harbourId}/departures: list',
        '/harbours/{harbourId}/arrivals: list',
        ...ROUTES,
        '/routes/{routeId}/origin: read',
        '/routes/{routeId}/destination: read',
      ],
      members: ['Route.create: originId! destinationId!'],
    },
    {
      name: 'An entity can refer to its own kind.',
      model: 'entity Member\neach Member refers to optional Member as leader, back as led',
      placements: { 'Member>Member:leader': 'read' },
      paths: [
        '/members: list create',
        '/members/{memberId}: read replace change remove',
        '/members/{memberId}/leader: read',
        '/members/{memberId}/led: list',
      ],
    },
    {
      name: 'Those that point and are hidden are not listed.',
      model: REFERS,
      placements: { Route: 'hidden' },
      paths: ['/harbours: list create', '/harbours/{harbourId}: read replace change remove'],
    },
  ],
};
