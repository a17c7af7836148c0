import { describe, expect, test } from '@jest/globals';
import { OPERATION_BUNDLES, type SettingsById, type SettingValues } from '@isomeros/core/arrangement';
import { compare } from '@isomeros/core/comparison';
import { indexContract, type Contract, type Operation, type Resource } from '@isomeros/core/contract';
import { derive, deriveOutline } from '@isomeros/core/derivation';
import { openApiDocument } from '@isomeros/core/publication';
import fc from 'fast-check';
import { arranged } from '../support/arrangement.js';
import { anyArrangement } from '../support/arrangements.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';

const TEXT = `entity Route
  name: text(1..60), required

entity Sailing
  berth: integer
  status: choice(planned, departed), default planned
    depart: planned -> departed

entity Crew
  name: text(1..60), required

each Route owns many Sailing as sailings, back as route
each Sailing refers to one Crew as captain
each Sailing pairs with many Crew as crew
`;

const model = modelOf(TEXT);
const idOf = (contract: Contract, path: string): string =>
  contract.resources.find((resource) => resource.path === path)?.id ?? `no ${path}`;
const plain = derive(model, arranged({}));
const at = (settings: Readonly<Record<string, SettingValues>>): SettingsById =>
  Object.fromEntries(Object.entries(settings).map(([path, values]) => [idOf(plain, path), values]));
const contractOf = (near: Readonly<Record<string, SettingValues>>, far: SettingValues = {}): Contract =>
  derive(model, arranged(far, at(near)));
const mockOf = (near: Readonly<Record<string, SettingValues>>, far: SettingValues = {}): TestMock =>
  new TestMock(model, { Route: 2, Sailing: 2, Crew: 2 }, arranged(far, at(near)));
const methodsAt = (contract: Contract, path: string): readonly string[] =>
  (indexContract(contract).operationsOf.get(idOf(contract, path)) ?? []).map(({ method }) => method);
const pathsOf = (contract: Contract): Readonly<Record<string, object>> =>
  openApiDocument(contract)['paths'] as Readonly<Record<string, object>>;
const findingsOf = (contract: Contract, part: string): readonly string[] =>
  contract.findings.filter(({ id }) => id.endsWith(part)).map(({ id, message }) => `${id}: ${message}`);

const ROUTES = '/routes';
const ROUTE = '/routes/{routeId}';

describe('operations that are left out', () => {
  test('are not in the contract, and the nearest choice wins', () => {
    const contract = contractOf({ [ROUTE]: { leftOut: [] } }, { leftOut: ['replace', 'remove'] });
    expect(methodsAt(contract, ROUTE)).toEqual(['GET', 'PUT', 'PATCH', 'DELETE']);
    expect(methodsAt(contract, '/routes/{routeId}/sailings/{sailingId}')).toEqual(['GET', 'PATCH']);
    const left = contract.resources.find(({ path }) => path.endsWith('/{sailingId}'))?.leftOut;
    expect(left?.map(({ verb, method, reasons }) => [verb, method, reasons[0]?.because])).toEqual(
      [
        ['replace', 'PUT'],
        ['remove', 'DELETE'],
      ].map(([verb, method]) => [
        verb,
        method,
        [{ kind: 'setting', name: 'leftOut', value: ['replace', 'remove'], level: 'arrangement' }],
      ]),
    );
  });

  test('answer 405 with what is allowed, and only the trace says who chose it', () => {
    const mock = mockOf({ [ROUTE]: { leftOut: ['replace', 'change'] } });
    const answer = mock.send('PATCH', '/api/v1/routes/1', { name: 'New' });
    expect([answer.status, answer.headers.get('allow')]).toEqual([405, 'GET, HEAD, DELETE, OPTIONS']);
    expect(JSON.stringify(answer.body)).not.toContain('eft out');
    expect(JSON.stringify(answer.handled.trace)).toContain('Left out for the resource: change.');
    const options = mock.send('OPTIONS', '/api/v1/routes/1');
    expect([options.headers.get('allow'), options.headers.has('accept-patch')]).toEqual([
      'GET, HEAD, DELETE, OPTIONS',
      false,
    ]);
  });

  test('leave no path where none is left, while what stands below it goes on', () => {
    const mock = mockOf({
      [ROUTE]: { leftOut: ['read', 'replace', 'change', 'remove'] },
      '/crews': { leftOut: ['list', 'create'] },
    });
    const gone = mock.send('GET', '/api/v1/routes/1');
    expect([gone.status, mock.send('OPTIONS', '/api/v1/routes/1').status]).toEqual([404, 404]);
    expect(JSON.stringify(gone.handled.trace)).toContain('Left out for the resource: read, replace');
    expect(mock.send('GET', '/api/v1/routes/1/sailings').status).toBe(200);
    expect(JSON.stringify(mock.send('GET', '/api/v1').body)).not.toContain('crews');
    expect(Object.keys(pathsOf(mock.service.contract))).not.toContain(ROUTE);
  });

  test('take their links with them, and the address of what is made', () => {
    const mock = mockOf({ [ROUTE]: { leftOut: ['read'] } });
    const made = mock.send('POST', '/api/v1/routes', { name: 'New' });
    expect([made.status, made.headers.has('location')]).toEqual([201, false]);
    expect(made.body).toMatchObject({ name: 'New' });
    expect(made.body).not.toHaveProperty('links.self');
    expect(made.body).toHaveProperty('links.sailings');
    expect(made.body).toHaveProperty('links.collection');
    const { responses } = [...indexContract(mock.service.contract).operations.values()].find(
      ({ id }) => id === 'createRoute',
    ) as Operation;
    expect(responses.find(({ code }) => code === 'created')?.when).not.toContain('Location');
    expect(JSON.stringify(pathsOf(mock.service.contract)[ROUTES])).not.toContain('"Location"');
  });

  test('leave what is carried where it is listed', () => {
    const text = `value Duty\n  watch: text\n\n${TEXT.replace('many Crew as crew', 'many Crew as crew, carrying Duty')}`;
    const mock = new TestMock(
      modelOf(text),
      { Route: 1, Sailing: 1, Crew: 1 },
      arranged({ leftOut: ['read'] }),
    );
    mock.send('PUT', '/api/v1/routes/1/sailings/1/crew/1', { watch: 'first' });
    const listed = mock.send('GET', '/api/v1/routes/1/sailings/1/crew');
    expect(listed.body).toMatchObject({ items: [{ duty: { watch: 'first' } }] });
  });

  test.each(OPERATION_BUNDLES.map(({ title, leftOut }) => [title, leftOut] as const))(
    'as a bundle: %s',
    (title, leftOut) => {
      const { operations } = derive(model, arranged({ leftOut }));
      const methods = new Set(operations.map(({ method }) => method));
      expect([...methods].sort()).toEqual(
        {
          'read only': ['GET'],
          'append only': ['GET', 'POST', 'PUT'],
          'no replace': ['DELETE', 'GET', 'PATCH', 'POST', 'PUT'],
          everything: ['DELETE', 'GET', 'PATCH', 'POST', 'PUT'],
        }[title],
      );
      if (title !== 'everything') expect(operations.map(({ verb }) => verb)).not.toContain('replace');
    },
  );
});

test('what is left out breaks those who send it, what is offered again nobody', () => {
  const [less, more] = [contractOf({ [ROUTE]: { leftOut: ['replace'] } }), plain];
  const told = (before: Contract, after: Contract): readonly string[] =>
    compare({ kind: 'draft', contract: before }, { kind: 'draft', contract: after }).changes.map(
      ({ compatibility, message }) => `${compatibility}: ${message}`,
    );
  expect(told(more, less)).toEqual(['breaking: PUT /api/v1/routes/{routeId} is left out now.']);
  expect(told(less, more)).toEqual(['compatible: PUT /api/v1/routes/{routeId} is new.']);
});

describe('what is missed where something is left out', () => {
  const SAILING = '/routes/{routeId}/sailings/{sailingId}';
  test.each<readonly [string, Readonly<Record<string, SettingValues>>, SettingValues, string]>([
    ['a list', { [ROUTES]: { leftOut: ['list'] } }, {}, 'list.left-out: What is in /routes cannot'],
    [
      'what others need',
      { '/crews': { leftOut: ['create'] } },
      {},
      'create.left-out: Each Sailing needs a Crew',
    ],
    [
      'a transition',
      { [`${SAILING}/depart`]: { leftOut: ['transition'] } },
      {},
      `transition.left-out: Nobody can carry out ${SAILING}/depart`,
    ],
    [
      'a removal, where that is asked for',
      { [ROUTE]: { leftOut: ['remove'] } },
      { neverRemoved: 'reported' },
      'remove.left-out: A Route can be created and never be removed',
    ],
  ])('%s', (_what, near, far, said) => {
    const contract = contractOf(near, far);
    const found = contract.findings.filter(({ id }) => id.endsWith('.left-out'));
    expect(found.map(({ id, message }) => `${id}: ${message}`)).toEqual([expect.stringContaining(said)]);
    const [about, settings] = Object.entries(at(near))[0] ?? [];
    expect(found[0]?.about).toBe(about);
    expect(settings).toBeDefined();
    expect(found[0]?.quickFixes?.[0]?.answer).toMatchObject({ kind: 'setting', value: [], resource: about });
  });

  test('a removal is passed over where nobody asks', () => {
    expect(findingsOf(contractOf({ [ROUTE]: { leftOut: ['remove'] } }), '.left-out')).toEqual([]);
  });
});

const hasIdAtEnd = ({ segments }: Resource): boolean => segments.at(-1)?.kind === 'id';

test('whatever is left out answers 405 or 404, and nothing leads to it', () => {
  fc.assert(
    fc.property(anyArrangement, ({ model: any, arrangement }) => {
      const mock = new TestMock(any, {}, arrangement);
      const { contract } = mock.service;
      const index = indexContract(contract);
      const paths = pathsOf(contract);
      const outline = deriveOutline(any, arrangement);
      expect(outline.operations.map(({ id }) => id)).toEqual(contract.operations.map(({ id }) => id));
      expect(outline.resources.map(({ leftOut }) => leftOut)).toEqual(
        contract.resources.map(({ leftOut }) => leftOut),
      );
      for (const { id, path, parent, links, leftOut } of contract.resources) {
        const methods = (index.operationsOf.get(id) ?? []).map(({ method }) => method);
        for (const { method } of leftOut) {
          expect(methods).not.toContain(method);
          expect(Object.keys(paths[path === '' ? '/' : path] ?? {})).not.toContain(method.toLowerCase());
          // Where there is no such path, its word is an id beside it.
          const isId = methods.length === 0 && index.childrenOf.get(parent ?? '')?.some(hasIdAtEnd) === true;
          if (path.includes('{') || isId) continue;
          const answer = mock.send(method, contract.root + path);
          const allow = methods.flatMap((one) => (one === 'GET' ? ['GET', 'HEAD'] : [one]));
          expect([answer.status, answer.headers.get('allow')]).toEqual(
            methods.length === 0 ? [404, undefined] : [405, [...allow, 'OPTIONS'].join(', ')],
          );
        }
        for (const { target } of links)
          if ('resource' in target) expect(index.operationsOf.has(target.resource)).toBe(true);
      }
    }),
    rounds(60),
  );
});
