import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import {
  arrangementOf,
  CHOOSABLE_NAMES,
  completeModel,
  hasEffect,
  NO_CHOICES,
  plainArrangement,
  readSettings,
  rowOf,
  SETTING_GROUPS,
  SETTINGS,
  setting,
  type Choices,
  type SettingValues,
} from '@isomeros/core/arrangement';
import type { Contract } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { expectGoldenText } from '../support/golden.js';
import { settingsDocument } from '../support/settingsDocument.js';

const TEXT = `entity CrewMember
  name: text(1..60), required

entity ShiftPlan
  day: date

entity SwapRequest
  why: text

each CrewMember owns many ShiftPlan as shiftPlans, back as member
each ShiftPlan owns many SwapRequest as swapRequests, back as plan
`;

const withOwn = (own: SettingValues, design: SettingValues = {}): Choices => ({
  ...NO_CHOICES,
  settings: design,
  arrangements: [{ ...plainArrangement('main'), settings: own }],
});

const contractOf = (choices: Choices, text = TEXT): Contract =>
  derive(completeModel(modelOf(text), choices), arrangementOf('main', choices));

interface Case {
  readonly name: string;
  readonly own: SettingValues;
  readonly design?: SettingValues;
  /** Every path, root included, in tree order. */
  readonly paths: readonly string[];
}

const CASES: readonly Case[] = [
  {
    name: 'nothing chosen: /api/v1, plural, kebab, two ids deep',
    own: {},
    paths: [
      '/api/v1',
      '/api/v1/crew-members',
      '/api/v1/crew-members/{crewMemberId}',
      '/api/v1/crew-members/{crewMemberId}/shift-plans',
      '/api/v1/crew-members/{crewMemberId}/shift-plans/{shiftPlanId}',
      '/api/v1/crew-members/{crewMemberId}/shift-plans/{shiftPlanId}/swap-requests',
      '/api/v1/swap-requests/{swapRequestId}',
    ],
  },
  {
    name: 'another base path and version',
    own: { basePath: '', version: '2026-06' },
    design: { basePath: '/services/ferries', depth: 1 },
    paths: [
      '/2026-06',
      '/2026-06/crew-members',
      '/2026-06/crew-members/{crewMemberId}',
      '/2026-06/crew-members/{crewMemberId}/shift-plans',
      '/2026-06/shift-plans/{shiftPlanId}',
      '/2026-06/shift-plans/{shiftPlanId}/swap-requests',
      '/2026-06/swap-requests/{swapRequestId}',
    ],
  },
  {
    name: 'singular collections in snake case, three ids deep',
    own: { collectionNames: 'singular', pathCase: 'snake', depth: 3 },
    paths: [
      '/api/v1',
      '/api/v1/crew_member',
      '/api/v1/crew_member/{crewMemberId}',
      '/api/v1/crew_member/{crewMemberId}/shift_plan',
      '/api/v1/crew_member/{crewMemberId}/shift_plan/{shiftPlanId}',
      '/api/v1/crew_member/{crewMemberId}/shift_plan/{shiftPlanId}/swap_request',
      '/api/v1/crew_member/{crewMemberId}/shift_plan/{shiftPlanId}/swap_request/{swapRequestId}',
    ],
  },
  {
    name: 'the version in a header, no base path: the entry is the root itself',
    own: { basePath: '', versionIn: 'header', depth: 3 },
    paths: [
      '',
      '/crew-members',
      '/crew-members/{crewMemberId}',
      '/crew-members/{crewMemberId}/shift-plans',
      '/crew-members/{crewMemberId}/shift-plans/{shiftPlanId}',
      '/crew-members/{crewMemberId}/shift-plans/{shiftPlanId}/swap-requests',
      '/crew-members/{crewMemberId}/shift-plans/{shiftPlanId}/swap-requests/{swapRequestId}',
    ],
  },
  {
    name: 'camel case',
    own: { pathCase: 'camel', depth: 1 },
    paths: [
      '/api/v1',
      '/api/v1/crewMembers',
      '/api/v1/crewMembers/{crewMemberId}',
      '/api/v1/crewMembers/{crewMemberId}/shiftPlans',
      '/api/v1/shiftPlans/{shiftPlanId}',
      '/api/v1/shiftPlans/{shiftPlanId}/swapRequests',
      '/api/v1/swapRequests/{swapRequestId}',
    ],
  },
];

describe('conventions', () => {
  test.each(CASES)('$name', ({ own, design, paths }) => {
    const { root, resources } = contractOf(withOwn(own, design));
    expect(resources.map(({ path }) => root + path)).toEqual(paths);
  });

  test('the nearest level at which a value was chosen holds, and is told', () => {
    const at = (choices: Choices): unknown => setting(arrangementOf('main', choices), 'pageSize');
    expect(at(NO_CHOICES)).toEqual({ value: 20, level: 'default' });
    expect(at(withOwn({}, { pageSize: 50 }))).toEqual({ value: 50, level: 'design' });
    expect(at(withOwn({ pageSize: 9 }, { pageSize: 50 }))).toEqual({ value: 9, level: 'arrangement' });
    expect(setting(arrangementOf('other', withOwn({ pageSize: 9 })), 'pageSize').level).toBe('default');
  });

  test('a reason names the setting with its value and its level', () => {
    const [entry] = contractOf(withOwn({ version: 'v7' })).resources;
    expect(entry?.reasons.flatMap(({ because }) => because)).toContainEqual({
      kind: 'setting',
      name: 'version',
      value: 'v7',
      level: 'arrangement',
    });
  });

  test('an invalid body answers the status that was chosen, as the contract says', () => {
    const choices = withOwn({ invalidStatus: 422 });
    const mock = new TestMock(modelOf(TEXT), {}, arrangementOf('main', choices));
    const answer = mock.send('POST', '/api/v1/crew-members', { name: 7 });
    expect(answer.status).toBe(422);
    const create = contractOf(choices).operations.find(({ id }) => id === 'createCrewMember');
    expect(create?.responses.find(({ code }) => code === 'invalid')?.status).toBe(422);
  });

  const mockOf = (own: SettingValues): TestMock =>
    new TestMock(modelOf(TEXT), { CrewMember: 3 }, arrangementOf('main', withOwn(own)));

  test('a version in a header answers the one there is, and refuses any other', () => {
    const mock = mockOf({ versionIn: 'header' });
    const read = (version: string | null): number =>
      mock.send('GET', '/api/crew-members', undefined, version === null ? {} : { 'api-version': version })
        .status;
    expect([read(null), read('v1'), read('v2')]).toEqual([200, 200, 400]);
    expect(mock.send('GET', '/api').body).toMatchObject({ links: { self: { href: '/api' } } });
  });

  test('without base path and version everything stands at the root of the host', () => {
    const mock = mockOf({ basePath: '', versionIn: 'nowhere' });
    expect(mock.send('GET', '/').body).toMatchObject({
      links: { self: { href: '/' }, crewMembers: { href: '/crew-members' } },
    });
  });

  test.each([
    ['same', 200, null],
    ['redirected', 308, '/api/v1/crew-members?size=2'],
    ['missing', 404, null],
  ] as const)('a slash at the end is %s', (trailingSlash, status, location) => {
    const answer = mockOf({ trailingSlash }).send('GET', '/api/v1/crew-members/?size=2');
    expect([answer.status, answer.headers.get('location') ?? null]).toEqual([status, location]);
  });

  test.each(['//elsewhere.example/', '/api/v1/nowhere/', '/%2Felsewhere.example/'])(
    '%s is redirected nowhere',
    (target) => {
      const answer = mockOf({ trailingSlash: 'redirected' }).send('GET', target);
      expect([answer.status, answer.headers.has('location')]).toEqual([404, false]);
    },
  );

  test.each([
    ['verbNoun', ['listCrewMembers', 'readCrewMember', 'listShiftPlans']],
    ['VerbNoun', ['ListCrewMembers', 'ReadCrewMember', 'ListShiftPlans']],
    ['verb_noun', ['list_crew_members', 'read_crew_member', 'list_shift_plans']],
    ['verb-noun', ['list-crew-members', 'read-crew-member', 'list-shift-plans']],
    ['nounVerb', ['crewMembersList', 'crewMemberRead', 'shiftPlansList']],
    ['noun.verb', ['crewMembers.list', 'crewMember.read', 'shiftPlans.list']],
  ] as const)('operations are named by the pattern %s', (operationNames, names) => {
    const { operations } = contractOf(withOwn({ operationNames }));
    expect(operations.map(({ id }) => id)).toEqual(expect.arrayContaining([...names]));
  });

  test('members, parameters and structures have one case, in what is sent and what is answered', () => {
    const mock = mockOf({ memberCase: 'snake', basePath: '', versionIn: 'nowhere' });
    const made = mock.send('POST', '/crew-members/1/shift-plans', { day: '2026-06-14' });
    expect(made.body).toMatchObject({ day: '2026-06-14', member_id: 1 });
    const page = mock.send('GET', '/crew-members/1/shift-plans?sort=-day').body as { page: object };
    expect(Object.keys(page.page)).toEqual(['number', 'size', 'total_items', 'total_pages']);
    expect(mock.send('GET', '/swap-requests').status).toBe(404);
    expect(mock.send('GET', '/crew-members?memberId=1').status).toBe(400);
  });

  test('a create answers the record, or its address alone; a removal nothing, or the record as it was', () => {
    const create = (own: SettingValues): unknown => {
      const answer = mockOf(own).send('POST', '/api/v1/crew-members', { name: 'Ada' });
      return [answer.status, answer.headers.get('location'), answer.body === null];
    };
    expect(create({})).toEqual([201, '/api/v1/crew-members/4', false]);
    expect(create({ createAnswers: 'nothing' })).toEqual([201, '/api/v1/crew-members/4', true]);
    const remove = (own: SettingValues): unknown => {
      const answer = mockOf(own).send('DELETE', '/api/v1/crew-members/1');
      return [answer.status, (answer.body as { id: number } | null)?.id ?? null];
    };
    expect(remove({})).toEqual([204, null]);
    expect(remove({ removeAnswers: 'record' })).toEqual([200, 1]);
  });
});

describe('every setting', () => {
  test.each(CHOOSABLE_NAMES)(
    '%s says what it does, where it can be chosen, and fits its own domain',
    (name) => {
      const { title, help, levels } = rowOf(name);
      expect(title).toMatch(/^[A-Z]/);
      expect(help).toMatch(/^\S.{20,130}\.$/);
      const [level] = levels;
      if (level === undefined) throw new Error('It can be chosen nowhere.');
      expect(readSettings({ [name]: SETTINGS[name].default }, level)).toMatchObject({ ok: true });
    },
  );

  test.each(CHOOSABLE_NAMES.flatMap((name) => (rowOf(name).when ?? []).map((when) => [name, when] as const)))(
    '%s has an effect by something that can be: %j',
    (_, when) => {
      const other = CHOOSABLE_NAMES.find((name) => name === when.setting);
      const row = other === undefined ? null : rowOf(other);
      if (row?.kind === 'list') {
        if ('includes' in when) expect(row.items).toContain(when.includes);
        else expect([when, row.min]).toEqual([{ setting: other, isEmpty: false }, 0]);
        return;
      }
      if (row?.kind !== 'options' || !('is' in when)) throw new Error('It depends on no such setting.');
      expect(when.is.length).toBeGreaterThan(0);
      expect(when.is.length).toBeLessThan(row.options.length);
      for (const value of when.is) expect(row.options).toContain(value);
    },
  );

  test('one has no effect while what it depends on is otherwise', () => {
    const of = (settings: SettingValues): readonly boolean[] => {
      const main = { ...plainArrangement('main'), settings };
      const arrangement = arrangementOf('main', { ...NO_CHOICES, arrangements: [main] });
      return (['role', 'keyHeader', 'pageMember'] as const).map((name) => hasEffect(arrangement, name));
    };
    expect(of({})).toEqual([false, false, true]);
    expect(of({ security: ['basic'], access: 'role' })).toEqual([true, false, true]);
    expect(of({ security: ['bearer', 'api key'], envelope: 'bare' })).toEqual([false, true, false]);
  });

  test('stands in one group', () => {
    expect(SETTING_GROUPS.flatMap(({ names }) => names)).toEqual(CHOOSABLE_NAMES);
  });
});

test('settings are published as they are', () => {
  expectGoldenText(join(import.meta.dirname, '../../../../docs/settings.md'), settingsDocument());
});
