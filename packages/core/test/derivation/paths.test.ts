import { describe, expect, test } from '@jest/globals';
import { indexContract, type Contract } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { modelOf } from '../support/models.js';
import type { SettingValues } from '@isomeros/core/arrangement';
import { arranged, MAIN } from '../support/arrangement.js';

/** The contract as lines: a path and its operations, or one link, or one finding. */
function paths(contract: Contract): string[] {
  const { operationsOf } = indexContract(contract);
  return contract.resources.map(
    (resource) =>
      `${resource.path === '' ? '/' : resource.path}: ${(operationsOf.get(resource.id) ?? []).map(({ id }) => id).join(' ')}`,
  );
}

const contractOf = (text: string): Contract => derive(modelOf(text), MAIN);

interface Case {
  readonly name: string;
  readonly model: string;
  readonly paths: readonly string[];
  readonly findings?: readonly string[];
}

const CASES: readonly Case[] = [
  { name: 'an empty model has its entry', model: '', paths: ['/: readEntry'] },
  {
    name: 'an entity that stands alone',
    model: 'entity Harbour\n  name: text',
    paths: [
      '/: readEntry',
      '/harbours: listHarbours createHarbour',
      '/harbours/{harbourId}: readHarbour replaceHarbour changeHarbour removeHarbour',
    ],
  },
  {
    name: 'words of a name are joined by hyphens in paths, and the last one is plural',
    model: 'entity CrewMember',
    paths: [
      '/: readEntry',
      '/crew-members: listCrewMembers createCrewMember',
      '/crew-members/{crewMemberId}: readCrewMember replaceCrewMember changeCrewMember removeCrewMember',
    ],
  },
  {
    name: 'irregular plurals are right',
    model: 'entity Person\nentity Category',
    paths: [
      '/: readEntry',
      '/people: listPeople createPerson',
      '/people/{personId}: readPerson replacePerson changePerson removePerson',
      '/categories: listCategories createCategory',
      '/categories/{categoryId}: readCategory replaceCategory changeCategory removeCategory',
    ],
  },
  {
    name: 'a declared key names the path parameter',
    model: 'entity Harbour\n  code: text, key',
    paths: [
      '/: readEntry',
      '/harbours: listHarbours createHarbour',
      '/harbours/{harbourCode}: readHarbour replaceHarbour changeHarbour removeHarbour',
    ],
  },
  {
    name: 'what is owned stands below its owner',
    model: 'entity Route\nentity Sailing\neach Route owns many Sailing as sailings',
    paths: [
      '/: readEntry',
      '/routes: listRoutes createRoute',
      '/routes/{routeId}: readRoute replaceRoute changeRoute removeRoute',
      '/routes/{routeId}/sailings: listSailings createSailing',
      '/routes/{routeId}/sailings/{sailingId}: readSailing replaceSailing changeSailing removeSailing',
    ],
  },
  {
    name: 'beyond the depth items stand at the root, and counting begins again there',
    model:
      'entity A\nentity B\nentity C\nentity D\neach A owns many B as bs\neach B owns many C as cs\neach C owns many D as ds',
    paths: [
      '/: readEntry',
      '/as: listAs createA',
      '/as/{aId}: readA replaceA changeA removeA',
      '/as/{aId}/bs: listBs createB',
      '/as/{aId}/bs/{bId}: readB replaceB changeB removeB',
      '/as/{aId}/bs/{bId}/cs: listCs createC',
      '/cs/{cId}: readC replaceC changeC removeC',
      '/cs/{cId}/ds: listDs createD',
      '/cs/{cId}/ds/{dId}: readD replaceD changeD removeD',
    ],
    findings: ['depth.moved C/item'],
  },
  {
    name: 'a key under its owner keeps its items below it, however deep',
    model:
      'entity A\nentity B\nentity C\n  label: text, key within b\neach A owns many B as bs\neach B owns many C as cs, back as b',
    paths: [
      '/: readEntry',
      '/as: listAs createA',
      '/as/{aId}: readA replaceA changeA removeA',
      '/as/{aId}/bs: listBs createB',
      '/as/{aId}/bs/{bId}: readB replaceB changeB removeB',
      '/as/{aId}/bs/{bId}/cs: listCs createC',
      '/as/{aId}/bs/{bId}/cs/{cLabel}: readC replaceC changeC removeC',
    ],
    findings: ['depth.exceeded C/item'],
  },
  {
    name: 'a required slot is read, replaced and changed, never removed',
    model: 'entity Vessel\nentity Certificate\neach Vessel owns one Certificate as certificate',
    paths: [
      '/: readEntry',
      '/vessels: listVessels createVessel',
      '/vessels/{vesselId}: readVessel replaceVessel changeVessel removeVessel',
      '/vessels/{vesselId}/certificate: readCertificate replaceCertificate changeCertificate',
    ],
  },
  {
    name: 'an optional slot can be emptied',
    model: 'entity Vessel\nentity Certificate\neach Vessel owns optional Certificate as papers',
    paths: [
      '/: readEntry',
      '/vessels: listVessels createVessel',
      '/vessels/{vesselId}: readVessel replaceVessel changeVessel removeVessel',
      '/vessels/{vesselId}/papers: readCertificate replaceCertificate changeCertificate removeCertificate',
    ],
  },
  {
    name: 'two references to one entity give two ways back',
    model:
      'entity Harbour\nentity Route\neach Route refers to one Harbour as origin, back as departures\neach Route refers to one Harbour as destination, back as arrivals',
    paths: [
      '/: readEntry',
      '/harbours: listHarbours createHarbour',
      '/harbours/{harbourId}: readHarbour replaceHarbour changeHarbour removeHarbour',
      '/harbours/{harbourId}/departures: listHarbourDepartures',
      '/harbours/{harbourId}/arrivals: listHarbourArrivals',
      '/routes: listRoutes createRoute',
      '/routes/{routeId}: readRoute replaceRoute changeRoute removeRoute',
    ],
  },
  {
    name: 'without back as there is no way back',
    model: 'entity Harbour\nentity Route\neach Route refers to one Harbour as origin',
    paths: [
      '/: readEntry',
      '/harbours: listHarbours createHarbour',
      '/harbours/{harbourId}: readHarbour replaceHarbour changeHarbour removeHarbour',
      '/routes: listRoutes createRoute',
      '/routes/{routeId}: readRoute replaceRoute changeRoute removeRoute',
    ],
  },
  {
    name: 'an entity that owns many of itself has all items at the root',
    model: 'entity Folder\neach Folder owns many Folder as folders, back as parent',
    paths: [
      '/: readEntry',
      '/folders: listFolders createFolder',
      '/folders/{folderId}: readFolder replaceFolder changeFolder removeFolder',
      '/folders/{folderId}/folders: listFolderFolders createFolderFolders',
    ],
  },
  {
    name: 'what is paired is listed from both sides, and each pair stands below its list',
    model:
      'value Duty\n  role: text, required\nentity Sailing\nentity Crew\n  name: text\neach Sailing pairs with many Crew as crew, back as sailings, carrying Duty',
    paths: [
      '/: readEntry',
      '/sailings: listSailings createSailing',
      '/sailings/{sailingId}: readSailing replaceSailing changeSailing removeSailing',
      '/sailings/{sailingId}/crew: listSailingCrew',
      '/sailings/{sailingId}/crew/{crewId}: readSailingCrew attachSailingCrew changeSailingCrew detachSailingCrew',
      '/crews: listCrews createCrew',
      '/crews/{crewId}: readCrew replaceCrew changeCrew removeCrew',
      '/crews/{crewId}/sailings: listCrewSailings',
    ],
    findings: ['path.mixed Sailing>Crew:crew'],
  },
  {
    name: 'a pair that carries nothing cannot be changed, and among one kind the parameter is named by the role',
    model: 'entity Person\neach Person pairs with many Person as friends',
    paths: [
      '/: readEntry',
      '/people: listPeople createPerson',
      '/people/{personId}: readPerson replacePerson changePerson removePerson',
      '/people/{personId}/friends: listPersonFriends',
      '/people/{personId}/friends/{friendId}: readPersonFriends attachPersonFriends detachPersonFriends',
    ],
  },
  {
    name: 'a transition is an action below its item',
    model: 'entity Sailing\n  status: choice(planned, gone), default planned\n    castOff: planned -> gone',
    paths: [
      '/: readEntry',
      '/sailings: listSailings createSailing',
      '/sailings/{sailingId}: readSailing replaceSailing changeSailing removeSailing',
      '/sailings/{sailingId}/cast-off: castOffSailing',
    ],
  },
  {
    name: 'what needs itself can never be created, and that is said',
    model: 'entity Hen\nentity Egg\neach Hen refers to one Egg as from\neach Egg refers to one Hen as layer',
    paths: [
      '/: readEntry',
      '/hens: listHens createHen',
      '/hens/{henId}: readHen replaceHen changeHen removeHen',
      '/eggs: listEggs createEgg',
      '/eggs/{eggId}: readEgg replaceEgg changeEgg removeEgg',
    ],
    findings: ['create.impossible Hen', 'create.impossible Egg'],
  },
];

describe('the path tree', () => {
  test.each(CASES)('$name', ({ model, paths: expected, findings = [] }) => {
    const contract = contractOf(model);
    expect(paths(contract)).toEqual(expected);
    expect(contract.findings.map(({ id, about }) => `${id} ${about}`)).toEqual(findings);
  });

  test('two entities whose plurals are the same collide, and the second is left out', () => {
    const contract = contractOf('entity Datum\nentity Data');
    expect(contract.findings.map(({ id }) => id)).toContain('path.collide');
    expect(contract.resources.filter(({ path }) => path === '/data')).toHaveLength(1);
  });

  test('a chain of 300 owners is derived, each pair of ids deep at the most', () => {
    const entities = Array.from({ length: 300 }, (_, index) => `entity E${index}\n  name: text`);
    const owns = entities
      .slice(1)
      .map((_, index) => `each E${index} owns many E${index + 1} as children${index + 1}, back as owner`);
    const contract = contractOf([...entities, ...owns].join('\n'));
    expect(contract.resources).toHaveLength(601);
    const ids = contract.resources.map(({ segments }) => segments.filter(({ kind }) => kind === 'id').length);
    expect(Math.max(...ids)).toBe(2);
  });

  test('a chain of 300 required slots is derived', () => {
    const entities = Array.from({ length: 300 }, (_, index) => `entity E${index}\n  name: text, required`);
    const owns = entities
      .slice(1)
      .map((_, index) => `each E${index} owns one E${index + 1} as part${index + 1}`);
    const contract = contractOf([...entities, ...owns].join('\n'));
    expect(contract.resources).toHaveLength(302);
  });
});

describe('the id in a path', () => {
  const item = (text: string, settings: SettingValues = {}): string | undefined =>
    derive(modelOf(text), arranged(settings)).resources.find(({ kind }) => kind === 'item')?.path;

  test.each([
    ['User', 'userId', '/users/{userId}'],
    ['Role', 'roleid', '/roles/{roleid}'],
    ['Contact', 'contactNo', '/contacts/{contactNo}'],
    ['Route', 'route', '/routes/{route}'],
    ['Harbour', 'code', '/harbours/{harbourCode}'],
    ['Add', 'address', '/adds/{addAddress}'],
    ['User', 'userGroupId', '/users/{userUserGroupId}'],
  ])('of %s with the key %s does not stutter: %s', (entity, key, path) => {
    expect(item(`entity ${entity}\n  ${key}: text(1..9), key\n\nentity UserGroup\n`)).toBe(path);
  });

  test('is called after its key alone where that was chosen, and those before it after their entity', () => {
    const text = 'entity Route\nentity Sailing\neach Route owns many Sailing as sailings\n';
    const contract = derive(modelOf(text), arranged({ parameterNames: 'key alone' }));
    expect(contract.resources.map(({ path }) => path)).toEqual([
      '',
      '/routes',
      '/routes/{id}',
      '/routes/{routeId}/sailings',
      '/routes/{routeId}/sailings/{id}',
    ]);
  });
});
