import { describe, expect, test } from '@jest/globals';
import {
  arrangementOf,
  NO_CHOICES,
  plainArrangement,
  type Arrangement,
  type ExposureChoice,
} from '@isomeros/core/arrangement';
import { indexContract, type Contract } from '@isomeros/core/contract';
import { derive, exposureGrid } from '@isomeros/core/derivation';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const arranged = (choice: ExposureChoice, member = 'Thing.it'): Arrangement =>
  arrangementOf('main', {
    ...NO_CHOICES,
    arrangements: [{ ...plainArrangement('main'), exposures: { Thing: { [member]: choice } } }],
  });

const modelWith = (flags: string): ReturnType<typeof modelOf> =>
  modelOf(`entity Thing\n  it: ${flags}\n  name: text`);

/** One row of the grid as a line: out, list, create, replace, change, number of operators, sort. */
function rowOf(flags: string, choice: ExposureChoice): string {
  const row = exposureGrid(modelWith(flags), arranged(choice), 'Thing').find(({ name }) => name === 'it');
  if (row === undefined) throw new Error('The grid has no such row.');
  const { out, list, create, replace, change, filter, sort } = row.exposed;
  return `${out} ${list} ${create} ${replace} ${change} ${filter.length} ${sort}`;
}

interface Case {
  readonly flags: string;
  readonly choice: ExposureChoice;
  readonly expected: string;
}

/** What the model allows, and what is left of what somebody chose. */
const CASES: readonly Case[] = [
  { flags: 'text', choice: {}, expected: 'yes yes may may may 6 yes' },
  { flags: 'text, required', choice: {}, expected: 'yes yes must must may 5 yes' },
  { flags: 'integer', choice: {}, expected: 'yes yes may may may 8 yes' },
  { flags: 'boolean, required', choice: {}, expected: 'yes yes must must may 1 yes' },
  { flags: 'json', choice: {}, expected: 'yes yes may may may 0 no' },
  { flags: 'text, write-only', choice: {}, expected: 'no no may may may 0 no' },
  {
    flags: 'text, write-only',
    choice: { out: 'yes', sort: 'yes', filter: ['eq'] },
    expected: 'no no may may may 0 no',
  },
  { flags: 'text, read-only', choice: { create: 'must', change: 'may' }, expected: 'yes yes no no no 6 yes' },
  { flags: 'text, fixed', choice: {}, expected: 'yes yes may no no 6 yes' },
  {
    flags: 'text, key',
    choice: { out: 'no', list: 'no', create: 'no' },
    expected: 'yes yes must no no 5 yes',
  },
  { flags: 'instant, touched', choice: {}, expected: 'yes yes no no no 8 yes' },
  { flags: 'text', choice: { out: 'no' }, expected: 'no no may may may 0 no' },
  { flags: 'text', choice: { list: 'no' }, expected: 'yes no may may may 6 yes' },
  { flags: 'text', choice: { create: 'must', replace: 'no' }, expected: 'yes yes must no may 6 yes' },
  { flags: 'text, required', choice: { create: 'may' }, expected: 'yes yes must must may 5 yes' },
  { flags: 'text, required', choice: { create: 'no' }, expected: 'yes yes no must may 5 yes' },
  { flags: 'text', choice: { filter: ['starts', 'lt'], sort: 'no' }, expected: 'yes yes may may may 1 no' },
];

describe('the exposure grid', () => {
  test.each(CASES)('$flags with $choice', ({ flags, choice, expected }) => {
    expect(rowOf(flags, choice)).toBe(expected);
  });

  test('says which cells were chosen, and what each could be', () => {
    const row = exposureGrid(modelWith('text'), arranged({ out: 'no' }), 'Thing').find(
      ({ name }) => name === 'it',
    );
    expect([row?.chosen, row?.options.out, row?.options.filter]).toEqual([['out'], ['yes', 'no'], []]);
  });
});

describe('what was chosen in the grid', () => {
  const contractOf = (flags: string, choice: ExposureChoice): Contract =>
    derive(modelWith(flags), arranged(choice));

  test('reaches every shape, each with its reason', () => {
    const { shapes } = indexContract(contractOf('text', { list: 'no', create: 'must', change: 'no' }));
    const names = (shape: string): string[] =>
      (shapes.get(shape)?.members ?? []).map(({ name, mode, required }) => `${name} ${mode} ${required}`);
    expect(names('Thing')).toContain('it returned true');
    expect(names('Thing.member')).not.toContain('it returned true');
    expect(names('Thing.create')).toContain('it accepted true');
    expect(names('Thing.change')).toContain('it must-equal false');
    const it = shapes.get('Thing.create')?.members.find(({ name }) => name === 'it');
    expect(it?.reasons.map(({ rule }) => rule).filter((rule) => rule === 'member.exposed')).toHaveLength(3);
  });

  test('that a required attribute is not accepted withholds create, says so, and has a quick fix', () => {
    const contract = contractOf('text, required', { create: 'no' });
    expect(contract.operations.map(({ id }) => id)).not.toContain('createThing');
    expect(contract.findings).toMatchObject([
      {
        id: 'create.withheld',
        quickFixes: [{ answer: { kind: 'exposure', entity: 'Thing', of: 'Thing.it', aspect: 'create' } }],
      },
    ]);
  });

  test('that something accepted is never returned is doubtful', () => {
    expect(contractOf('text', { out: 'no' }).findings.map(({ id }) => id)).toEqual(['member.unseen']);
    expect(contractOf('text, write-only', {}).findings).toEqual([]);
  });

  test('is what a mock takes and answers', () => {
    const choice: ExposureChoice = { list: 'no', change: 'no', filter: ['starts'], sort: 'no' };
    const mock = new TestMock(modelWith('text(1..9)'), { Thing: 2 }, arranged(choice));
    const made = mock.send('POST', '/api/v1/things', { it: 'abc', name: 'x' });
    const { id } = made.body as { id: number };
    const list = mock.send('GET', '/api/v1/things?it[starts]=ab').body as { items: object[] };
    expect(list.items).toMatchObject([{ id, name: 'x' }]);
    expect(list.items[0]).not.toHaveProperty('it');
    expect(mock.send('GET', `/api/v1/things/${id}`).body).toMatchObject({ it: 'abc' });
    expect(mock.send('PATCH', `/api/v1/things/${id}`, { it: 'other' }).status).toBe(400);
    expect(mock.send('GET', '/api/v1/things?it=abc').status).toBe(400);
    expect(mock.send('GET', '/api/v1/things?sort=it').status).toBe(400);
  });

  test('an empty slot that nothing may fill stays empty', () => {
    const model = modelOf(
      'entity Box\nentity Thing\n  it: text, required\neach Box owns optional Thing as thing',
    );
    const mock = new TestMock(model, { Box: 1, Thing: 1 }, arranged({ create: 'no' }));
    expect(mock.send('DELETE', '/api/v1/boxes/1/thing').status).toBe(204);
    expect(mock.send('PUT', '/api/v1/boxes/1/thing', { it: 'x' }).status).toBe(404);
  });
});
