import type { Chapter } from './layout.js';
import { MOVES, OWNED, ROUTES } from './models.js';

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
    {
      name: 'Path parameters in snake case.',
      model: 'entity CrewMember',
      settings: { parameterCase: 'snake' },
      paths: ['/crew-members: list create', '/crew-members/{crew_member_id}: read replace change remove'],
    },
    {
      name: 'Paths as the model writes its names.',
      model: 'entity CrewMember\nentity ShiftPlan\neach CrewMember owns many ShiftPlan as shiftPlans',
      settings: { pathCase: 'written', depth: 1 },
      paths: [
        '/CrewMembers: list create',
        '/CrewMembers/{crewMemberId}: read replace change remove',
        '/CrewMembers/{crewMemberId}/shiftPlans: list create',
        '/ShiftPlans/{shiftPlanId}: read replace change remove',
      ],
      findings: ['depth.moved ShiftPlan/item'],
    },
    {
      name: 'Another word takes the place of the derived one, wherever the path has it.',
      model: OWNED,
      settings: { depth: 1 },
      words: { Sailing: 'crossings', 'Route>Sailing:sailings': 'trips' },
      paths: [
        ...ROUTES,
        '/routes/{routeId}/trips: list create',
        '/crossings/{sailingId}: read replace change remove',
      ],
      links: ['/routes/{routeId}: sailings → /routes/{routeId}/trips'],
      reasons: ['/routes/{routeId}/trips: name.word'],
      findings: ['depth.moved Sailing/item'],
    },
    {
      name: 'A chosen word that is taken collides.',
      model: 'entity Harbour\nentity Pier',
      words: { Pier: 'harbours' },
      paths: ['/harbours: list create', '/harbours/{harbourId}: read replace change remove'],
      findings: ['path.collide Harbour'],
    },
    {
      name: 'Members in snake case, references and structures too.',
      model:
        'entity Route\n  openedOn: date\n  shortName: text, required\neach Route refers to optional Route as wayBack',
      settings: { memberCase: 'snake' },
      paths: ROUTES,
      members: [
        'Route: id! opened_on! short_name! way_back_id!',
        'Route.create: opened_on short_name! way_back_id',
        'Route.page: items! page!',
      ],
    },
    {
      name: 'Members in Pascal case.',
      model: 'value Spot\n  x: integer, required\nentity Trip\n  startsAt: Spot, required',
      settings: { memberCase: 'pascal' },
      paths: ['/trips: list create', '/trips/{tripId}: read replace change remove'],
      members: ['Trip.create: StartsAt!', 'Spot: X!', 'Trip.page: Items! Page!'],
    },
    {
      name: 'A word that begins with a verb says what the method says already.',
      model: 'entity GetHarbour',
      paths: ['/get-harbours: list create', '/get-harbours/{getHarbourId}: read replace change remove'],
      findings: ['name.verb GetHarbour'],
    },
    {
      name: 'Members of a value that become the same by their case collide.',
      model: 'value Spot\n  aBC: text\n  aBc: text\nentity Trip\n  start: Spot',
      settings: { memberCase: 'snake' },
      paths: ['/trips: list create', '/trips/{tripId}: read replace change remove'],
      members: ['Spot: a_bc'],
      findings: ['member.collide Spot'],
    },
    {
      name: 'A collection that is called in the singular among plurals is mixed.',
      model: 'entity Harbour\nentity Pier',
      words: { Pier: 'pier' },
      paths: [
        '/harbours: list create',
        '/harbours/{harbourId}: read replace change remove',
        '/pier: list create',
        '/pier/{pierId}: read replace change remove',
      ],
      findings: ['path.mixed Pier'],
    },
    {
      name: 'A list that a role names as one record is called is mixed, what is many by itself is not.',
      model:
        'entity Ship\nentity Cabin\neach Ship owns many Cabin as cabin\neach Ship pairs with many Cabin as fleet, back as latestShip',
      paths: [
        '/ships: list create',
        '/ships/{shipId}: read replace change remove',
        '/ships/{shipId}/cabin: list create',
        '/ships/{shipId}/cabin/{cabinId}: read replace change remove',
        '/ships/{shipId}/cabin/{cabinId}/latest-ship: list',
        '/ships/{shipId}/fleet: list',
        '/ships/{shipId}/fleet/{cabinId}: read attach detach',
      ],
      findings: ['path.mixed Ship>Cabin:cabin', 'path.mixed Ship>Cabin:fleet/back'],
    },
    {
      name: 'In the singular, lists that are named by a role are, too, and one that is called otherwise is mixed.',
      model:
        'entity Route\nentity Harbour\neach Harbour owns many Route as openRoutes\neach Route refers to optional Harbour as origin, back as departures\neach Route pairs with many Harbour as stops, back as calls',
      settings: { collectionNames: 'singular' },
      words: { 'Route>Harbour:stops': 'stops' },
      paths: [
        '/harbour: list create',
        '/harbour/{harbourId}: read replace change remove',
        '/harbour/{harbourId}/open-route: list create',
        '/harbour/{harbourId}/open-route/{routeId}: read replace change remove',
        '/harbour/{harbourId}/open-route/{routeId}/stops: list',
        '/harbour/{harbourId}/open-route/{routeId}/stops/{stopId}: read attach detach',
        '/harbour/{harbourId}/departure: list',
        '/harbour/{harbourId}/call: list',
      ],
      findings: ['path.mixed Route>Harbour:stops'],
    },
    {
      name: 'Another plural is the word of the path, too.',
      model: 'entity Crew',
      words: { 'Crew/plural': 'crew' },
      paths: ['/crew: list create', '/crew/{crewId}: read replace change remove'],
      links: ['/: crew → /crew'],
    },
  ],
};
