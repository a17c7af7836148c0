import type { Chapter } from './layout.js';
import { MOVES } from './models.js';

export const NAMES: Chapter = {
  title: 'Names',
  layouts: [
    {
      name: 'Words of a name are joined by hyphens; the last one is plural.',
      model: 'entity CrewMember',
      paths: ['/crew-members: list create', '/crew-members/{crewMemberId}: read replace change remove'],
    },
    {
      name: 'Singular collections, in snake case.',
      model: 'entity CrewMember',
      settings: { collectionNames: 'singular', pathCase: 'snake' },
      paths: ['/crew_member: list create', '/crew_member/{crewMemberId}: read replace change remove'],
    },
    {
      name: 'Paths in camel case.',
      model: 'entity CrewMember',
      settings: { pathCase: 'camel' },
      paths: ['/crewMembers: list create', '/crewMembers/{crewMemberId}: read replace change remove'],
    },
    {
      name: 'Irregular plurals.',
      model: 'entity Person\nentity Category\neach Person refers to optional Category as kind',
      paths: [
        '/people: list create',
        '/people/{personId}: read replace change remove',
        '/categories: list create',
        '/categories/{categoryId}: read replace change remove',
      ],
    },
    {
      name: 'Uncountable nouns stay as they are.',
      model: 'entity Sheep',
      paths: ['/sheep: list create', '/sheep/{sheepId}: read replace change remove'],
    },
    {
      name: 'A declared key names the path parameter.',
      model: 'entity Harbour\n  code: text, key',
      paths: ['/harbours: list create', '/harbours/{harbourCode}: read replace change remove'],
      members: ['Harbour.create: code!'],
    },
    {
      name: 'Two names that become the same path collide; the second is left out.',
      model: 'entity Datum\nentity Data',
      paths: ['/data: list create', '/data/{datumId}: read replace change remove'],
      findings: ['path.collide Datum'],
    },
    {
      name: 'A role and a transition of one name collide.',
      model: `${MOVES}\nentity Day\neach Trip owns many Day as close`,
      paths: [
        '/trips: list create',
        '/trips/{tripId}: read replace change remove',
        '/trips/{tripId}/close: list create',
        '/trips/{tripId}/close/{dayId}: read replace change remove',
      ],
      findings: ['path.collide Trip>Day:close'],
    },
  ],
};
