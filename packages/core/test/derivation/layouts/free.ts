import type { Chapter } from './layout.js';
import { OWNED, REFERS, ROUTES } from './models.js';

export const FREE: Chapter = {
  title: 'What nothing owns',
  layouts: [
    {
      name: 'An entity stands at the root, its items below its collection.',
      model: 'entity Harbour\n  name: text',
      paths: ['/harbours: list create', '/harbours/{harbourId}: read replace change remove'],
      links: ['/: harbours → /harbours', '/harbours/{harbourId}: collection → /harbours'],
      reasons: ['/harbours: place.root', '/harbours/{harbourId}: name.parameter'],
    },
    {
      name: 'Hidden, it has no path and no shape.',
      model: 'entity Harbour\nentity Note',
      placements: { Note: 'hidden' },
      paths: ['/harbours: list create', '/harbours/{harbourId}: read replace change remove'],
    },
    {
      name: 'What stands below something hidden is out of reach, and a finding says so.',
      model: OWNED,
      placements: { Route: 'hidden' },
      paths: [],
      findings: ['entity.unreachable Sailing'],
    },
    {
      name: 'A reference to something hidden stays a member; no link leads there.',
      model: REFERS,
      placements: { Harbour: 'hidden' },
      paths: ROUTES,
      members: ['Route: id! originId!', 'Route.create: originId'],
    },
  ],
};
