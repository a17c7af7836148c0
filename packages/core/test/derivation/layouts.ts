import type { Placements, SettingValues } from '@isomeros/core/arrangement';

/** A small model laid out in one way, with everything expected of it written by hand. */
export interface Layout {
  /** The rule it shows, as a heading would say it. */
  readonly name: string;
  readonly model: string;
  readonly placements?: Placements;
  readonly settings?: SettingValues;
  /** Every path under the root with its operations by verb, in tree order; the entry is left out. */
  readonly paths: readonly string[];
  /** Links, as `path: relation → target`, that must be there. */
  readonly links?: readonly string[];
  /** Members, as `Shape: member member!`, that a shape has; `!` is required. `links` is left out. */
  readonly members?: readonly string[];
  /** Rules among the reasons of a path, as `path: rule`. */
  readonly reasons?: readonly string[];
  readonly findings?: readonly string[];
}

const OWNED =
  'entity Route\nentity Sailing\n  name: text\neach Route owns many Sailing as sailings, back as route';
const THREE =
  'entity Route\nentity Sailing\nentity Booking\neach Route owns many Sailing as sailings\neach Sailing owns many Booking as bookings';
const SLOT = 'entity Vessel\nentity Paper\n  number: text\neach Vessel owns optional Paper as paper';
const REFERS =
  'entity Harbour\nentity Route\neach Route refers to optional Harbour as origin, back as departures';
const PAIRS = 'entity Sailing\nentity Crew\neach Sailing pairs with many Crew as crew, back as sailings';
const CARRYING = `value Duty\n  role: text, required\n${PAIRS}, carrying Duty`;
const MOVES = 'entity Trip\n  state: choice(open, shut), default open\n    close: open -> shut';

const ROUTES = ['/routes: list create', '/routes/{routeId}: read replace change remove'];

export const LAYOUTS: readonly (readonly [chapter: string, layouts: readonly Layout[]])[] = [
  [
    'What nothing owns',
    [
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
  ],
  [
    'Owns many',
    [
      {
        name: 'Nested: a collection below each owner, its items below that.',
        model: OWNED,
        paths: [
          ...ROUTES,
          '/routes/{routeId}/sailings: list create',
          '/routes/{routeId}/sailings/{sailingId}: read replace change remove',
        ],
        links: [
          '/routes/{routeId}: sailings → /routes/{routeId}/sailings',
          '/routes/{routeId}/sailings/{sailingId}: up → /routes/{routeId}',
          '/routes/{routeId}/sailings/{sailingId}: collection → /routes/{routeId}/sailings',
        ],
        members: ['Sailing: id! name! routeId!', 'Sailing.create: name'],
        reasons: ['/routes/{routeId}/sailings: place.nested'],
      },
      {
        name: 'Shallow: listed and created below each owner, items at the root.',
        model: OWNED,
        placements: { 'Route>Sailing:sailings': 'shallow' },
        paths: [
          ...ROUTES,
          '/routes/{routeId}/sailings: list create',
          '/sailings/{sailingId}: read replace change remove',
        ],
        links: [
          '/sailings/{sailingId}: collection → /routes/{routeId}/sailings',
          '/sailings/{sailingId}: up → /routes/{routeId}',
        ],
        members: ['Sailing.create: name'],
        reasons: ['/sailings/{sailingId}: place.shallow'],
      },
      {
        name: 'Flat: all at the root; the body names the owner, and the owner links to the narrowed list.',
        model: OWNED,
        placements: { 'Route>Sailing:sailings': 'flat' },
        paths: [...ROUTES, '/sailings: list create', '/sailings/{sailingId}: read replace change remove'],
        links: [
          '/routes/{routeId}: sailings → /sailings?routeId',
          '/sailings/{sailingId}: up → /routes/{routeId}',
          '/: sailings → /sailings',
        ],
        members: [
          'Sailing: id! name! routeId!',
          'Sailing.create: name routeId!',
          'Sailing.replace: id name routeId',
        ],
        reasons: ['/sailings: place.flat'],
      },
      {
        name: 'Both: nested, and listed and read at the root too.',
        model: OWNED,
        placements: { 'Route>Sailing:sailings': 'both' },
        paths: [
          ...ROUTES,
          '/routes/{routeId}/sailings: list create',
          '/routes/{routeId}/sailings/{sailingId}: read replace change remove',
          '/sailings: list',
          '/sailings/{sailingId}: read',
        ],
        links: [
          '/: sailings → /sailings',
          '/routes/{routeId}: sailings → /routes/{routeId}/sailings',
          '/routes/{routeId}/sailings/{sailingId}: self → self',
        ],
        reasons: ['/sailings: place.both', '/sailings/{sailingId}: place.both'],
      },
      {
        name: 'Hidden: no path; the owner has no link there.',
        model: OWNED,
        placements: { 'Route>Sailing:sailings': 'hidden' },
        paths: ROUTES,
      },
      {
        name: 'Flat below something hidden: it stands at the root all the same.',
        model: OWNED,
        placements: { Route: 'hidden', 'Route>Sailing:sailings': 'flat' },
        paths: ['/sailings: list create', '/sailings/{sailingId}: read replace change remove'],
        members: ['Sailing.create: name routeId!'],
      },
      {
        name: 'Beyond the depth an item stands at the root, and counting begins again.',
        model: THREE,
        paths: [
          ...ROUTES,
          '/routes/{routeId}/sailings: list create',
          '/routes/{routeId}/sailings/{sailingId}: read replace change remove',
          '/routes/{routeId}/sailings/{sailingId}/bookings: list create',
          '/bookings/{bookingId}: read replace change remove',
        ],
        reasons: ['/bookings/{bookingId}: place.depth'],
        findings: ['depth.moved Booking/item'],
      },
      {
        name: 'Depth 1: every owned item stands at the root.',
        model: OWNED,
        settings: { depth: 1 },
        paths: [
          ...ROUTES,
          '/routes/{routeId}/sailings: list create',
          '/sailings/{sailingId}: read replace change remove',
        ],
        findings: ['depth.moved Sailing/item'],
      },
      {
        name: 'Depth 3 holds three ids.',
        model: THREE,
        settings: { depth: 3 },
        paths: [
          ...ROUTES,
          '/routes/{routeId}/sailings: list create',
          '/routes/{routeId}/sailings/{sailingId}: read replace change remove',
          '/routes/{routeId}/sailings/{sailingId}/bookings: list create',
          '/routes/{routeId}/sailings/{sailingId}/bookings/{bookingId}: read replace change remove',
        ],
      },
      {
        name: 'What an item at the root owns is nested there, without a depth finding.',
        model: THREE,
        placements: { 'Route>Sailing:sailings': 'shallow' },
        paths: [
          ...ROUTES,
          '/routes/{routeId}/sailings: list create',
          '/sailings/{sailingId}: read replace change remove',
          '/sailings/{sailingId}/bookings: list create',
          '/sailings/{sailingId}/bookings/{bookingId}: read replace change remove',
        ],
      },
      {
        name: 'Flat over flat: each names its own owner.',
        model: THREE,
        placements: { 'Route>Sailing:sailings': 'flat', 'Sailing>Booking:bookings': 'flat' },
        paths: [
          ...ROUTES,
          '/sailings: list create',
          '/sailings/{sailingId}: read replace change remove',
          '/bookings: list create',
          '/bookings/{bookingId}: read replace change remove',
        ],
        members: ['Sailing.create: routeId!', 'Booking.create: sailingId!'],
      },
      {
        name: 'Both beyond the depth: the one item at the root, with a list beside it.',
        model: THREE,
        placements: { 'Sailing>Booking:bookings': 'both' },
        paths: [
          ...ROUTES,
          '/routes/{routeId}/sailings: list create',
          '/routes/{routeId}/sailings/{sailingId}: read replace change remove',
          '/routes/{routeId}/sailings/{sailingId}/bookings: list create',
          '/bookings/{bookingId}: read replace change remove',
          '/bookings: list',
        ],
        findings: ['depth.moved Booking/item'],
      },
      {
        name: 'A key that is unique under its owner only cannot stand at the root.',
        model:
          'entity Vessel\nentity Cabin\n  label: text, key within vessel\neach Vessel owns many Cabin as cabins, back as vessel',
        placements: { 'Vessel>Cabin:cabins': 'flat' },
        paths: [
          '/vessels: list create',
          '/vessels/{vesselId}: read replace change remove',
          '/vessels/{vesselId}/cabins: list create',
          '/vessels/{vesselId}/cabins/{cabinLabel}: read replace change remove',
        ],
        members: ['Cabin.create: label!'],
        findings: ['key.scoped-root Cabin/item'],
      },
      {
        name: 'Such a key stays nested beyond the depth.',
        model:
          'entity Vessel\nentity Cabin\n  label: text, key within vessel\neach Vessel owns many Cabin as cabins, back as vessel',
        settings: { depth: 1 },
        paths: [
          '/vessels: list create',
          '/vessels/{vesselId}: read replace change remove',
          '/vessels/{vesselId}/cabins: list create',
          '/vessels/{vesselId}/cabins/{cabinLabel}: read replace change remove',
        ],
        findings: ['depth.exceeded Cabin/item'],
      },
      {
        name: 'What a slot owns cannot name its owner, and stays below it.',
        model: `${SLOT}\nentity Stamp\neach Paper owns many Stamp as stamps`,
        placements: { 'Paper>Stamp:stamps': 'flat' },
        paths: [
          '/vessels: list create',
          '/vessels/{vesselId}: read replace change remove',
          '/vessels/{vesselId}/paper: read replace change remove',
          '/vessels/{vesselId}/paper/stamps: list create',
          '/vessels/{vesselId}/paper/stamps/{stampId}: read replace change remove',
        ],
        findings: ['owner.keyless Stamp/item'],
      },
      {
        name: 'Its own kind: all at the root, and a list of children below each.',
        model: 'entity Folder\neach Folder owns many Folder as folders, back as parent',
        paths: [
          '/folders: list create',
          '/folders/{folderId}: read replace change remove',
          '/folders/{folderId}/folders: list create',
        ],
        members: ['Folder: id! parentId!', 'Folder.create:'],
        reasons: ['/folders/{folderId}/folders: place.tree'],
      },
      {
        name: 'Its own kind, children hidden: only the root remains.',
        model: 'entity Folder\neach Folder owns many Folder as folders, back as parent',
        placements: { 'Folder>Folder:folders': 'hidden' },
        paths: ['/folders: list create', '/folders/{folderId}: read replace change remove'],
      },
    ],
  ],
  [
    'Owns one',
    [
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
  ],
  [
    'Refers to',
    [
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
  ],
  [
    'Pairs with',
    [
      {
        name: 'From the near side: a list and each pair; the far side only lists.',
        model: PAIRS,
        paths: [
          '/sailings: list create',
          '/sailings/{sailingId}: read replace change remove',
          '/sailings/{sailingId}/crew: list',
          '/sailings/{sailingId}/crew/{crewId}: read attach detach',
          '/crews: list create',
          '/crews/{crewId}: read replace change remove',
          '/crews/{crewId}/sailings: list',
        ],
        links: ['/crews/{crewId}: sailings → /crews/{crewId}/sailings'],
        reasons: ['/crews/{crewId}/sailings: place.pairing-back'],
      },
      {
        name: 'The list of the far side can be left out.',
        model: PAIRS,
        placements: { 'Sailing>Crew:crew/back': 'off' },
        paths: [
          '/sailings: list create',
          '/sailings/{sailingId}: read replace change remove',
          '/sailings/{sailingId}/crew: list',
          '/sailings/{sailingId}/crew/{crewId}: read attach detach',
          '/crews: list create',
          '/crews/{crewId}: read replace change remove',
        ],
      },
      {
        name: 'From both sides: pairs can be made and ended at either.',
        model: PAIRS,
        placements: { 'Sailing>Crew:crew': 'both-sides' },
        paths: [
          '/sailings: list create',
          '/sailings/{sailingId}: read replace change remove',
          '/sailings/{sailingId}/crew: list',
          '/sailings/{sailingId}/crew/{crewId}: read attach detach',
          '/crews: list create',
          '/crews/{crewId}: read replace change remove',
          '/crews/{crewId}/sailings: list',
          '/crews/{crewId}/sailings/{sailingId}: read attach detach',
        ],
        reasons: ['/crews/{crewId}/sailings/{sailingId}: place.pairing-far'],
      },
      {
        name: 'From the far side only, with what each pair carries.',
        model: CARRYING,
        placements: { 'Sailing>Crew:crew': 'far' },
        paths: [
          '/sailings: list create',
          '/sailings/{sailingId}: read replace change remove',
          '/crews: list create',
          '/crews/{crewId}: read replace change remove',
          '/crews/{crewId}/sailings: list',
          '/crews/{crewId}/sailings/{sailingId}: read attach change detach',
        ],
        members: ['Crew-sailings: id! duty!', 'Duty: role!'],
      },
      {
        name: 'Carrying a value, a pair can be changed, and its members show the value.',
        model: CARRYING,
        paths: [
          '/sailings: list create',
          '/sailings/{sailingId}: read replace change remove',
          '/sailings/{sailingId}/crew: list',
          '/sailings/{sailingId}/crew/{crewId}: read attach change detach',
          '/crews: list create',
          '/crews/{crewId}: read replace change remove',
          '/crews/{crewId}/sailings: list',
        ],
        members: ['Sailing-crew: id! duty!'],
      },
      {
        name: 'Hidden: neither side shows it.',
        model: PAIRS,
        placements: { 'Sailing>Crew:crew': 'hidden' },
        paths: [
          '/sailings: list create',
          '/sailings/{sailingId}: read replace change remove',
          '/crews: list create',
          '/crews/{crewId}: read replace change remove',
        ],
      },
      {
        name: 'Without a way back there is no far side to keep it from.',
        model: 'entity Sailing\nentity Crew\neach Sailing pairs with many Crew as crew',
        placements: { 'Sailing>Crew:crew': 'far' },
        paths: [
          '/sailings: list create',
          '/sailings/{sailingId}: read replace change remove',
          '/sailings/{sailingId}/crew: list',
          '/sailings/{sailingId}/crew/{crewId}: read attach detach',
          '/crews: list create',
          '/crews/{crewId}: read replace change remove',
        ],
      },
      {
        name: 'Among one kind both sides name the other by the role.',
        model: 'entity Person\neach Person pairs with many Person as friends, back as admirers',
        placements: { 'Person>Person:friends': 'both-sides' },
        paths: [
          '/people: list create',
          '/people/{personId}: read replace change remove',
          '/people/{personId}/friends: list',
          '/people/{personId}/friends/{friendId}: read attach detach',
          '/people/{personId}/admirers: list',
          '/people/{personId}/admirers/{admirerId}: read attach detach',
        ],
      },
      {
        name: 'With a hidden entity nothing is paired.',
        model: PAIRS,
        placements: { Crew: 'hidden' },
        paths: ['/sailings: list create', '/sailings/{sailingId}: read replace change remove'],
      },
    ],
  ],
  [
    'Transitions',
    [
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
  ],
  [
    'Names',
    [
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
  ],
  [
    'Members',
    [
      {
        name: 'What the server makes is returned and never accepted.',
        model: 'entity Trip\n  number: integer, generated\n  name: text, required',
        paths: ['/trips: list create', '/trips/{tripId}: read replace change remove'],
        members: ['Trip: id! number! name!', 'Trip.create: name!', 'Trip.replace: id number name!'],
      },
      {
        name: 'A secret is accepted and never returned.',
        model: 'entity Trip\n  pin: text, write-only',
        paths: ['/trips: list create', '/trips/{tripId}: read replace change remove'],
        members: ['Trip: id!', 'Trip.create: pin', 'Trip.change: id pin'],
      },
      {
        name: 'A read-only attribute is returned only.',
        model: 'entity Trip\n  price: decimal, read-only',
        paths: ['/trips: list create', '/trips/{tripId}: read replace change remove'],
        members: ['Trip: id! price!', 'Trip.create:'],
      },
      {
        name: 'A default makes a required attribute optional to send.',
        model: 'entity Trip\n  seats: integer, required, default 4',
        paths: ['/trips: list create', '/trips/{tripId}: read replace change remove'],
        members: ['Trip: id! seats!', 'Trip.create: seats'],
      },
      {
        name: 'A value is an object in the representation.',
        model: 'value Spot\n  x: integer, required\nentity Trip\n  start: Spot, required',
        paths: ['/trips: list create', '/trips/{tripId}: read replace change remove'],
        members: ['Trip.create: start!', 'Spot: x!'],
      },
      {
        name: 'Two members of one name collide; the second is left out.',
        model: 'entity Harbour\nentity Trip\n  startId: text\neach Trip refers to one Harbour as start',
        paths: [
          '/harbours: list create',
          '/harbours/{harbourId}: read replace change remove',
          '/trips: list create',
          '/trips/{tripId}: read replace change remove',
        ],
        members: ['Trip.create: startId'],
        findings: ['member.collide Trip'],
      },
      {
        name: 'References in a circle that all are required make creation impossible.',
        model:
          'entity Hen\nentity Egg\neach Hen refers to one Egg as from\neach Egg refers to one Hen as layer',
        paths: [
          '/hens: list create',
          '/hens/{henId}: read replace change remove',
          '/eggs: list create',
          '/eggs/{eggId}: read replace change remove',
        ],
        findings: ['create.impossible Hen', 'create.impossible Egg'],
      },
      {
        name: 'Nothing can refer to a key that is unique under its owner only.',
        model:
          'entity Vessel\nentity Cabin\n  label: text, key within vessel\nentity Stay\neach Vessel owns many Cabin as cabins, back as vessel\neach Stay refers to optional Cabin as cabin',
        paths: [
          '/vessels: list create',
          '/vessels/{vesselId}: read replace change remove',
          '/vessels/{vesselId}/cabins: list create',
          '/vessels/{vesselId}/cabins/{cabinLabel}: read replace change remove',
          '/stays: list create',
          '/stays/{stayId}: read replace change remove',
        ],
        members: ['Stay.create:'],
        findings: ['key.scoped-reference Stay>Cabin:cabin'],
      },
      {
        name: 'A filter that would have the name of a parameter of the list is left out.',
        model: 'entity Book\n  page: integer',
        paths: ['/books: list create', '/books/{bookId}: read replace change remove'],
        findings: ['parameter.reserved Book'],
      },
    ],
  ],
];
