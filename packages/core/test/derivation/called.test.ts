import { describe, expect, test } from '@jest/globals';
import { compare } from '@isomeros/core/comparison';
import {
  arrangementOf,
  NO_CHOICES,
  plainArrangement,
  readChoices,
  type Arrangement,
  type Exposures,
  type SettingValues,
} from '@isomeros/core/arrangement';
import { withAnswer, type Contract } from '@isomeros/core/contract';
import { derive, exposureGrid } from '@isomeros/core/derivation';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const MODEL = modelOf(`entity Vessel
  imo: text(7..7), key
  name: text, required, unique

entity Route
  name: text

entity Sailing
  departsAt: instant, required
  secret: text, write-only
  state: choice(planned, left), default planned
    leave: planned -> left

each Route owns many Sailing as sailings, back as route
each Sailing refers to one Vessel as vessel, back as sailings
`);

const OWNS = 'Route>Sailing:sailings';
const VESSEL = 'Sailing>Vessel:vessel';

const calling = (exposures: Exposures, settings: SettingValues = {}): Arrangement =>
  arrangementOf('main', {
    ...NO_CHOICES,
    arrangements: [{ ...plainArrangement('main'), exposures, settings }],
  });

const named = (names: Readonly<Record<string, string>>): Exposures[string] =>
  Object.fromEntries(Object.entries(names).map(([id, name]) => [id, { name }]));

const SAILING = {
  Sailing: named({
    'Sailing#id': 'ref',
    'Sailing.departsAt': 'departure',
    'Sailing.secret': 'pass',
    'Sailing.state': 'phase',
    [VESSEL]: 'ship',
    [OWNS]: 'line',
  }),
  Vessel: named({ 'Vessel.imo': 'number', 'Vessel.name': 'title' }),
};

describe('a member that is called otherwise than in the model', () => {
  const settings = { defaultSort: ['-departsAt'], fields: 'on', filterThrough: 'on' } as const;
  const mock = new TestMock(MODEL, { Route: 1, Vessel: 2, Sailing: 0 }, calling(SAILING, settings));
  const [vessel] = (
    mock.send('GET', '/api/v1/vessels').body as { items: { number: string; title: string }[] }
  ).items;
  const ship = vessel?.number ?? '';
  const body = { departure: '2026-07-01T08:00:00Z', ship, pass: 'x' };
  const list = '/api/v1/routes/1/sailings';
  const sent = (departure: string): { status: number; body: unknown } =>
    mock.send('POST', list, { ...body, departure });

  test('is sent and answered by that name', () => {
    expect(sent('2026-07-01T08:00:00Z').body).toEqual({
      ref: 1,
      departure: '2026-07-01T08:00:00Z',
      phase: 'planned',
      ship,
      line: 1,
      links: expect.any(Object),
    });
    sent('2026-07-02T08:00:00Z');
    const refused = mock.send('POST', list, { departsAt: body.departure, vesselImo: ship });
    expect(refused.status).toBe(400);
    expect(refused.body).toMatchObject({
      errors: expect.arrayContaining([expect.objectContaining({ pointer: '/departure', code: 'required' })]),
    });
  });

  test.each([
    ['filtered', `?departure[gt]=2026-07-01T09:00:00Z`, [2]],
    ['filtered by what it refers to', `?ship=${ship}`, [2, 1]],
    ['filtered through it', `?vessel.title=${encodeURIComponent(vessel?.title ?? '')}`, [2, 1]],
    ['sorted', '?sort=departure', [1, 2]],
    ['in the order that was chosen by its name in the model', '', [2, 1]],
  ])('is %s', (_how, query, ids) => {
    const answer = mock.send('GET', list + query);
    expect([
      answer.status,
      (answer.body as { items?: { ref: number }[] }).items?.map(({ ref }) => ref),
    ]).toEqual([200, ids]);
  });

  test('is asked for alone, and named by errors', () => {
    expect(mock.send('GET', `${list}/1?fields=departure`).body).toEqual({
      departure: body.departure,
      links: expect.any(Object),
    });
    expect(mock.send('GET', `${list}?departsAt=x`).status).toBe(400);
    const taken = mock.send('POST', '/api/v1/vessels', { number: '1234567', title: vessel?.title });
    expect(taken.body).toMatchObject({ errors: [{ pointer: '/title', code: 'unique' }] });
    const key = mock.send('POST', '/api/v1/vessels', { number: '.......', title: 'y' });
    expect(key.status).toBe(201);
    expect(mock.send('POST', `${list}/1/leave`).status).toBe(200);
    expect(mock.send('POST', `${list}/1/leave`).body).toMatchObject({
      detail: expect.stringContaining('phase is "left"'),
    });
  });

  test('is as the model has it wherever records are not answered by the contract', () => {
    const change = mock.send('PATCH', `${list}/2`, { departure: '2026-07-03T08:00:00Z' }).handled.changes[0];
    expect(change).toMatchObject({ after: { values: { 'Sailing.departsAt': '2026-07-03T08:00:00Z' } } });
  });
});

describe('of two of a name', () => {
  const contractOf = (names: Readonly<Record<string, string>>): Contract =>
    derive(MODEL, calling({ Sailing: named(names) }));
  const members = (contract: Contract): readonly string[] =>
    contract.shapes.find(({ name }) => name === 'Sailing')?.members.map(({ name }) => name) ?? [];

  test.each<readonly [string, Readonly<Record<string, string>>, readonly string[]]>([
    ['one has it from the model', { 'Sailing.departsAt': 'state' }, ['departsAt']],
    ['both were chosen', { 'Sailing.departsAt': 'x', 'Sailing.state': 'x' }, ['state']],
    ['it is that of the links', { 'Sailing.departsAt': 'links' }, ['departsAt']],
    ['it is a role', { 'Sailing.departsAt': 'vessel' }, ['departsAt']],
    ['they change places', { 'Sailing.departsAt': 'state', 'Sailing.state': 'departsAt' }, []],
    [
      'one gets back what another has taken',
      { 'Sailing.departsAt': 'id', 'Sailing.state': 'departsAt' },
      ['departsAt', 'state'],
    ],
  ])('where %s, the second keeps its own, and it is told', (_where, names, kept) => {
    const contract = contractOf(names);
    expect(new Set(members(contract)).size).toBe(members(contract).length);
    expect(members(contract)).toEqual(expect.arrayContaining([...kept]));
    const told = contract.findings.filter(({ id }) => id === 'member.collide');
    expect(told).toHaveLength(kept.length);
    const [answer] = told.flatMap(({ quickFixes }) => (quickFixes ?? []).map((fix) => fix.answer));
    if (answer === undefined) return;
    const choices = {
      ...NO_CHOICES,
      arrangements: [{ ...plainArrangement('main'), exposures: { Sailing: named(names) } }],
    };
    if (answer.kind !== 'exposure') throw new Error('Another choice would not help.');
    const mended = derive(MODEL, arrangementOf('main', withAnswer(choices, 'main', answer)));
    expect(mended.findings.filter(({ id }) => id === 'member.collide').length).toBeLessThan(told.length);
  });

  test('a filter takes precedence over a member that is called as it is written', () => {
    const arrangement = calling(
      { Sailing: named({ 'Sailing.state': 'departsAt__gte' }) },
      { filterStyle: 'suffixed' },
    );
    const reserved = derive(MODEL, arrangement).findings.filter(({ id }) => id === 'parameter.reserved');
    expect(reserved[0]).toMatchObject({
      severity: 'error',
      message: expect.stringContaining('departsAt__gte'),
    });
    expect(reserved[0]?.quickFixes?.[0]?.title).toContain('as a family');
  });
});

test('calling it otherwise breaks clients, and comparison says why', () => {
  const draft = (name: string): { kind: 'draft'; contract: Contract } => ({
    kind: 'draft',
    contract: derive(MODEL, calling({ Vessel: named({ 'Vessel.name': name }) })),
  });
  const { changes } = compare(draft('name'), draft('title'));
  const breaking = changes.filter(({ compatibility }) => compatibility === 'breaking');
  expect(breaking.map(({ message }) => message)).toContain('name of Vessel is not answered any more.');
  expect(JSON.stringify(breaking)).toContain('"aspect":"name","value":"title"');
  expect(compare(draft('a'), draft('a')).changes).toEqual([]);
});

test('the grid shows both names, and what was chosen though it cannot be', () => {
  const grid = exposureGrid(MODEL, calling({ Vessel: named({ 'Vessel.name': 'imo' }) }), 'Vessel');
  expect(grid.map(({ name, derived, called }) => [name, derived, called])).toEqual([
    ['imo', 'imo', null],
    ['name', 'name', 'imo'],
  ]);
});

test.each(['', '9', 'a b', 'a.b', 'a[b]', 'ä', 'x'.repeat(61)])('%j is refused as a name', (name) => {
  const exposures = { Vessel: { 'Vessel.name': { name } } };
  const read = readChoices({ arrangements: [{ name: 'main', exposures }] }, '');
  expect(read.problems.map(({ pointer }) => pointer)).toEqual([
    '/arrangements/0/exposures/Vessel/Vessel.name/name',
  ]);
});
