import type { Chapter } from './layout.js';
import { MOVES } from './models.js';

export const TRANSITIONS: Chapter = {
  title: 'Transitions',
  layouts: [
    {
      name: 'A transition is an action below its item.',
      model: MOVES,
      paths: [
        '/trips: list create',
        '/trips/{tripId}: read replace change remove',
        '/trips/{tripId}/close: transition',
      ],
      links: ['/trips/{tripId}: close → /trips/{tripId}/close'],
      members: ['Trip.change: id state', 'Trip.create:'],
      reasons: ['/trips/{tripId}/close: place.action'],
    },
    {
      name: 'By change: replacing or changing the attribute moves it, under the same rule.',
      model: MOVES,
      placements: { 'Trip.state/close': 'change' },
      paths: ['/trips: list create', '/trips/{tripId}: read replace change remove'],
      members: ['Trip.change: id state~', 'Trip.create:'],
    },
    {
      name: 'Hidden: clients cannot move it.',
      model: MOVES,
      placements: { 'Trip.state/close': 'hidden' },
      paths: ['/trips: list create', '/trips/{tripId}: read replace change remove'],
      members: ['Trip.change: id state'],
    },
  ],
};
