import { describe, expect, test } from '@jest/globals';
import {
  arrangementOf,
  NO_CHOICES,
  operationKey,
  plainArrangement,
  type ArrangementChoices,
  type CustomOperation,
  type SettingValues,
} from '@isomeros/core/arrangement';
import { baselineRelease, breakingFindings, compare, type ChangeSummary } from '@isomeros/core/comparison';
import { indexContract, type Contract } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { modelOf } from '../support/models.js';

const PORT =
  'entity Port\n  name: text(1..40), required\n  kind: choice(sea, river)\n  depth: integer(0..90)';
const OWNED = 'entity Route\nentity Sailing\n  berth: text\neach Route owns many Sailing as sailings';

interface Laid {
  readonly model?: string;
  readonly settings?: SettingValues;
  readonly choices?: Partial<Omit<ArrangementChoices, 'name' | 'settings'>>;
}

function contractOf({ model = PORT, settings = {}, choices = {} }: Laid): Contract {
  const own = { ...plainArrangement('main'), ...choices, settings };
  return derive(modelOf(model), arrangementOf('main', { ...NO_CHOICES, arrangements: [own] }));
}

const newest = (limit: number): CustomOperation => ({
  id: 'c1',
  name: 'newest',
  entity: 'Port',
  effect: { kind: 'query', filters: [], order: [], limit },
});

interface Case {
  readonly name: string;
  readonly before?: Laid;
  readonly after: Laid;
  /** Each breaking change, with whom it breaks; all of them. */
  readonly breaks: readonly string[];
  /** Some of the others. */
  readonly others?: readonly string[];
}

const port = (line: string, instead: string): Laid => ({ model: PORT.replace(line, instead) });

const CASES: readonly Case[] = [
  {
    name: 'A new member that may be left out breaks nobody.',
    after: { model: `${PORT}\n  opened: date` },
    breaks: [],
    others: [
      'compatible: opened of Port.create is new.',
      'compatible: opened of Port is answered.',
      'compatible: GET /api/v1/ports takes opened.',
    ],
  },
  {
    name: 'A new member that is required breaks who creates.',
    after: { model: `${PORT}\n  opened: date, required` },
    breaks: [
      'sender: opened of Port.create is new and required.',
      'sender: opened of Port.replace is new and required.',
    ],
  },
  {
    name: 'A member that goes breaks who sends, who filters, and who reads.',
    after: port('\n  depth: integer(0..90)', ''),
    breaks: [
      'sender: sort of GET /api/v1/ports does not know depth.',
      'sender: depth of GET /api/v1/ports is refused.',
      'reader: depth of Port is not answered any more.',
      'sender: depth of Port.create is refused.',
      'sender: depth of Port.replace is refused.',
      'sender: depth of Port.change is refused.',
    ],
  },
  {
    name: 'A narrower type breaks who sends; who reads does not mind.',
    after: port('0..90', '0..50'),
    breaks: [
      'sender: depth of GET /api/v1/ports is at most 50.',
      'sender: depth of Port.create is at most 50.',
      'sender: depth of Port.replace is at most 50.',
      'sender: depth of Port.change is at most 50.',
    ],
  },
  {
    name: 'A wider type breaks who reads; who sends does not mind.',
    after: port('1..40', '1..60'),
    breaks: ['reader: name of Port was text of 1 to 40 characters and is text of 1 to 60 characters now.'],
    others: [
      'compatible: name of Port.create can be text of 1 to 60 characters; it was text of 1 to 40 characters.',
    ],
  },
  {
    name: 'One more choice breaks who reads, one less who sends.',
    after: port('sea, river', 'sea, lake'),
    breaks: [
      'sender: kind of GET /api/v1/ports does not have river.',
      'reader: kind of Port was one of sea, river and is one of sea, lake now.',
      'sender: kind of Port.create does not have river.',
      'sender: kind of Port.replace does not have river.',
      'sender: kind of Port.change does not have river.',
    ],
  },
  {
    name: 'What was optional and is required breaks who leaves it out, and cannot be null.',
    after: port('depth: integer(0..90)', 'depth: integer(0..90), required'),
    breaks: [
      'sender: depth of GET /api/v1/ports does not know unset.',
      'sender: depth of Port.create is required.',
      'sender: depth of Port.create cannot be null.',
      'sender: depth of Port.replace is required.',
      'sender: depth of Port.replace cannot be null.',
      'sender: depth of Port.change cannot be null.',
    ],
  },
  {
    name: 'A branch that moves is gone from where it was, and told where it is.',
    before: { model: OWNED },
    after: { model: OWNED, choices: { placements: { 'Route>Sailing:sailings': 'flat' } } },
    breaks: [
      'sender: GET, POST /api/v1/routes/{routeId}/sailings are /api/v1/sailings now.',
      'sender: GET, PUT, PATCH, DELETE /api/v1/routes/{routeId}/sailings/{sailingId} are /api/v1/sailings/{sailingId} now.',
    ],
  },
  {
    name: 'Another base path moves everything.',
    before: { model: 'entity Port' },
    after: { model: 'entity Port', settings: { basePath: '/rest' } },
    breaks: [
      'sender: GET /api/v1 is /rest/v1 now.',
      'sender: GET, POST /api/v1/ports are /rest/v1/ports now.',
      'sender: GET, PUT, PATCH, DELETE /api/v1/ports/{portId} are /rest/v1/ports/{portId} now.',
    ],
  },
  {
    name: 'What ids and operations are called does not travel.',
    after: { settings: { operationNames: 'verb_noun' } },
    breaks: [],
    others: ['cosmetic: listPorts is called list_ports now.'],
  },
  {
    name: 'Smaller pages break who asks for large ones, unless they are clamped.',
    after: { settings: { maxPageSize: 50 } },
    breaks: ['sender: size of GET /api/v1/ports is at most 50; it was 100.'],
  },
  {
    name: 'Clamped pages break nobody.',
    before: { settings: { oversize: 'clamped' } },
    after: { settings: { oversize: 'clamped', maxPageSize: 50, pageSize: 10 } },
    breaks: [],
    others: [
      'compatible: size of GET /api/v1/ports is at most 50; it was 100.',
      'compatible: A page holds 10 where nobody asks; it was 20.',
    ],
  },
  {
    name: 'Another status of an invalid body breaks who reads it.',
    before: { model: 'entity Port\n  name: text' },
    after: { model: 'entity Port\n  name: text', settings: { invalidStatus: 422 } },
    breaks: [
      'reader: POST /api/v1/ports answers 422 where it answered 400.',
      'reader: PUT /api/v1/ports/{portId} answers 422 where it answered 400.',
      'reader: PATCH /api/v1/ports/{portId} answers 422 where it answered 400.',
    ],
  },
  {
    name: 'Credentials that were not asked for break who has none.',
    before: { model: 'entity Port', settings: { security: ['bearer'], access: 'anonymous' } },
    after: {
      model: 'entity Port',
      settings: { security: ['bearer'], access: 'anonymous' },
      choices: { operations: { [operationKey('Port', 'list')]: { access: 'authenticated' } } },
    },
    breaks: ['sender: GET /api/v1/ports is for those with credentials.'],
  },
  {
    name: 'A media type that goes breaks who reads it, and who sends it.',
    after: { settings: { mediaTypes: ['json'] } },
    breaks: [
      'sender: POST /api/v1/ports does not take application/hal+json.',
      'sender: PUT /api/v1/ports/{portId} does not take application/hal+json.',
      'sender: _links of Port.replace is refused.',
      'sender: PATCH /api/v1/ports/{portId} does not take application/hal+json.',
      'sender: _links of Port.change is refused.',
      'reader: application/hal+json is not answered any more.',
    ],
  },
  {
    name: 'A query of your own that looks for something else answers something else.',
    before: { choices: { customOperations: [newest(3)] } },
    after: { choices: { customOperations: [newest(5)] } },
    breaks: ['sender: GET /api/v1/ports/newest does something else.'],
  },
  {
    name: 'Without links who follows them is lost.',
    before: { model: 'entity Port' },
    after: { model: 'entity Port', settings: { links: 'none' } },
    breaks: [
      'reader: links of entry is not answered any more.',
      'reader: links of Port.page is not answered any more.',
      'reader: links of Port is not answered any more.',
      'sender: links of Port.replace is refused.',
      'sender: links of Port.change is refused.',
    ],
  },
];

const told = (contract: readonly [Contract, Contract]): { breaks: string[]; others: string[] } => {
  const [before, after] = contract;
  const { changes } = compare({ kind: 'draft', contract: before }, { kind: 'draft', contract: after });
  return {
    breaks: changes
      .filter(({ compatibility }) => compatibility === 'breaking')
      .map(({ affects, message }) => `${affects}: ${message}`),
    others: changes
      .filter(({ compatibility }) => compatibility !== 'breaking')
      .map(({ compatibility, message }) => `${compatibility}: ${message}`),
  };
};

describe('what changes from one contract to another', () => {
  test.each(CASES)('$name', ({ before = {}, after, breaks, others = [] }) => {
    const found = told([contractOf(before), contractOf(after)]);
    expect(found.breaks).toEqual(breaks);
    expect(found.others).toEqual(expect.arrayContaining([...others]));
  });
});

describe('the summary', () => {
  const summary = (before: Laid, after: Laid): ChangeSummary =>
    compare({ kind: 'draft', contract: contractOf(before) }, { kind: 'draft', contract: contractOf(after) })
      .summary;

  test('names the paths that are added and removed, and operations of another name', () => {
    const found = summary(
      { model: OWNED },
      { model: OWNED, choices: { placements: { 'Route>Sailing:sailings': 'shallow' } } },
    );
    expect(found.pathsAdded).toEqual(['/api/v1/sailings/{sailingId}']);
    expect(found.pathsRemoved).toEqual(['/api/v1/routes/{routeId}/sailings/{sailingId}']);
    expect(found.operationsAdded).toEqual([]);
    const renamed = summary(
      { model: 'entity Port' },
      { model: 'entity Harbour', choices: { words: { Harbour: 'ports' } } },
    );
    expect(renamed.pathsAdded).toEqual([]);
    expect(renamed.operationsRenamed).toContainEqual({ was: 'listPorts', is: 'listHarbours' });
  });

  test('is empty where nothing is another', () => {
    const lists = Object.values(summary({ model: OWNED }, { model: OWNED })) as readonly unknown[][];
    expect(lists.flat()).toEqual([]);
  });
});

describe('a release', () => {
  const made = (label: string, arrangement: string, version: string) => ({ label, arrangement, version });
  const releases = [
    made('1.0', 'main', 'v1'),
    made('1.1', 'main', 'v1'),
    made('2.0', 'main', 'v2'),
    made('1.2', 'shore', 'v1'),
  ];

  test('is held against its arrangement and its version, the newest of them', () => {
    expect(baselineRelease(releases, 'main', 'v1')?.label).toBe('1.1');
    expect(baselineRelease(releases, 'shore', 'v1')?.label).toBe('1.2');
    expect(baselineRelease(releases, 'main', 'v3')).toBeUndefined();
  });

  test('is broken by each change it does not allow, found where it is felt, with its reasons', () => {
    const released = contractOf({ model: OWNED });
    const now = contractOf({ model: OWNED.replace('text', 'integer') });
    const findings = breakingFindings({ label: '1.0', contract: released }, now);
    const read = findings.find(({ message }) => message.includes('for readers'));
    expect(read).toMatchObject({
      id: 'release.broken',
      severity: 'breaking',
      message: 'Breaks 1.0 for readers: berth of Sailing was text and is an integer now.',
    });
    expect(indexContract(now).resources.has(read?.about ?? '')).toBe(true);
    expect(read?.reasons[0]).toEqual({
      rule: 'finding.breaks',
      because: [{ kind: 'release', label: '1.0' }],
    });
    const cited = (read?.reasons ?? []).flatMap(({ because }) => because);
    expect(cited).toContainEqual({ kind: 'statement', id: 'Sailing.berth' });
  });

  test('that lost a path is broken at what is left above it', () => {
    const released = contractOf({ model: OWNED });
    const now = contractOf({ model: OWNED, choices: { placements: { 'Route>Sailing:sailings': 'hidden' } } });
    const gone = breakingFindings({ label: '1.0', contract: released }, now);
    const route = now.resources.find(({ path }) => path === '/routes/{routeId}')?.id;
    expect(gone.map(({ about, message }) => [about, message])).toEqual([
      [route, 'Breaks 1.0 for senders: GET, POST /api/v1/routes/{routeId}/sailings are gone.'],
      [
        route,
        'Breaks 1.0 for senders: GET, PUT, PATCH, DELETE /api/v1/routes/{routeId}/sailings/{sailingId} are gone.',
      ],
      [route, 'Breaks 1.0 for who follows links: /api/v1/routes/{routeId} does not link sailings any more.'],
    ]);
  });
});

describe('the cause of what breaks a release', () => {
  const causes = (before: Laid, after: Laid): readonly unknown[] =>
    breakingFindings({ label: '1.0', contract: contractOf(before) }, contractOf(after)).map(
      ({ cause }) => cause ?? null,
    );
  const TWO = 'entity BusRoute\n  shortName: text, required\nentity BusStop\n  longName: text';

  test.each<readonly [string, Laid, Laid, object | null]>([
    [
      'a setting, though another one was chosen long before',
      { model: TWO, settings: { pathCase: 'snake' } },
      { model: TWO, settings: { pathCase: 'snake', memberCase: 'snake' } },
      { kind: 'setting', name: 'memberCase', value: 'snake', level: 'arrangement' },
    ],
    [
      'a placement',
      { model: OWNED },
      { model: OWNED, choices: { placements: { 'Route>Sailing:sailings': 'flat' } } },
      { kind: 'placement', subject: 'Route>Sailing:sailings', place: 'flat' },
    ],
    ['none, where the model changed', {}, port(', required', ''), null],
  ])('is %s', (_name, before, after, expected) => {
    const found = causes(before, after);
    expect(found.length).toBeGreaterThan(0);
    for (const cause of found)
      if (expected === null) expect(cause).toBeNull();
      else expect(cause).toMatchObject(expected);
  });
});
