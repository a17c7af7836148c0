import type { Chapter } from './layout.js';

export const MEMBERS: Chapter = {
  title: 'Members',
  layouts: [
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
    {
      name: 'What must be sent and is left out by its name cannot be created.',
      model: 'entity Trip\n  links: text, required',
      paths: ['/trips: list', '/trips/{tripId}: read replace change remove'],
      findings: ['member.collide Trip', 'create.withheld Trip'],
    },
  ],
};
