import type { Chapter } from './layout.js';
import { SLOT } from './models.js';

export const OWNS_ONE: Chapter = {
  title: 'Owns one',
  layouts: [
    {
      name: 'An optional slot is filled by replace and emptied by remove.',
      model: SLOT,
      paths: [
        '/vessels: list create',
        '/vessels/{vesselId}: read replace change remove',
        '/vessels/{vesselId}/paper: read replace change remove',
      ],
      links: [
        '/vessels/{vesselId}: paper → /vessels/{vesselId}/paper',
        '/vessels/{vesselId}/paper: up → /vessels/{vesselId}',
      ],
      reasons: ['/vessels/{vesselId}/paper: place.singleton'],
    },
    {
      name: 'A required slot is made in the body of its owner, and never removed alone.',
      model: 'entity Vessel\nentity Paper\n  number: text, required\neach Vessel owns one Paper as paper',
      paths: [
        '/vessels: list create',
        '/vessels/{vesselId}: read replace change remove',
        '/vessels/{vesselId}/paper: read replace change',
      ],
      members: ['Vessel.create: paper!', 'Paper.create: number!'],
    },
    {
      name: 'A hidden slot has no path.',
      model: SLOT,
      placements: { 'Vessel>Paper:paper': 'hidden' },
      paths: ['/vessels: list create', '/vessels/{vesselId}: read replace change remove'],
    },
    {
      name: 'A hidden required slot is still made with its owner.',
      model: 'entity Vessel\nentity Paper\n  number: text, required\neach Vessel owns one Paper as paper',
      placements: { 'Vessel>Paper:paper': 'hidden' },
      paths: ['/vessels: list create', '/vessels/{vesselId}: read replace change remove'],
      members: ['Vessel.create: paper!', 'Paper.create: number!'],
    },
    {
      name: 'What a hidden slot owns is out of reach.',
      model: `${SLOT}\nentity Stamp\neach Paper owns many Stamp as stamps`,
      placements: { 'Vessel>Paper:paper': 'hidden' },
      paths: ['/vessels: list create', '/vessels/{vesselId}: read replace change remove'],
      findings: ['entity.unreachable Stamp'],
    },
  ],
};
