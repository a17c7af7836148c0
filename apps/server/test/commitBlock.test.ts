import { describe, expect, test } from '@jest/globals';
import {
  commitBlock,
  isRefused,
  saysCommitted,
  writesOf,
  type Committing,
} from '../src/mocks/commitBlock.js';

const BASE = {
  datasetId: 'set',
  holder: 'me',
  sequence: 7,
  counters: '{}',
  kept: [],
  removed: [],
  answers: [],
  tokens: [],
};

/** Places for values, and values. */
const counted = (committing: Committing): [places: number, values: number] => {
  const { sql = '', values = [] } = commitBlock(committing) ?? {};
  return [sql.split('?').length - 1, values.length];
};

describe('a commit in one statement', () => {
  test('has a value for each of its places, whatever it writes', () => {
    const kept = [
      { rid: 1, data: '{}' },
      { rid: 2, data: '{"a":"?"}' },
    ];
    const answers = [
      { id: 'k', at: 1, fingerprint: 'f', response: { status: 201, headers: [], body: null } },
    ];
    const token = { digest: 'd', scheme: 'bearer', rid: 3, ends: 1, role: null } as const;
    const tokens = [{ kind: 'issue', token } as const, { kind: 'end', digest: 'e' } as const];
    for (const more of [
      {},
      { kept },
      { removed: [3, 4] },
      { answers },
      { tokens },
      { kept, removed: [3], answers, tokens },
    ]) {
      const [places, values] = counted({ ...BASE, ...more });
      expect(values).toBe(places);
    }
  });

  test('follows the write before, and nobody else holds the dataset', () => {
    const { sql = '', values } = commitBlock(BASE) ?? {};
    expect(values).toEqual([8, '{}', 'set', 'me', 7]);
    expect(sql.indexOf('UPDATE datasets')).toBeLessThan(sql.indexOf('IF ROW_COUNT() = 1'));
    expect(sql).not.toContain('INSERT');
    expect(sql).not.toContain('DELETE');
  });

  test('is not one statement where it is too long, and never writes too many rows at once', () => {
    const kept = [{ rid: 1, data: 'x'.repeat(5_000_000) }];
    expect(commitBlock({ ...BASE, kept })).toBeNull();
    const many = Array.from({ length: 4_201 }, (_, rid) => ({ rid, data: '{}' }));
    const rows = writesOf({ ...BASE, kept: many }).map(({ values }) => values.length / 3);
    expect(rows).toEqual([2_000, 2_000, 201]);
  });

  test('never has more data than the database takes, unless a single row has', () => {
    const sizes = [3_000_000, 1_000_000, 300_000, 5_000_000, 1, 4_194_303, 1];
    const kept = sizes.map((size, rid) => ({ rid, data: 'x'.repeat(size) }));
    const statements = writesOf({ ...BASE, kept });
    expect(statements.map(({ values }) => values.length / 3)).toEqual([2, 1, 1, 2, 1]);
    expect(statements.flatMap(({ values }) => values.filter((_, index) => index % 3 === 1))).toEqual(
      kept.map(({ rid }) => rid),
    );
  });

  test.each([
    [[[{ committed: 1 }], {}], true],
    [[[{ committed: '0' }], {}], false],
  ])('says what became of it: %j', (answer, committed) => {
    expect(saysCommitted(answer)).toBe(committed);
  });

  test.each([[undefined], [[]], [[[]]], [[{ affectedRows: 1 }]]])(
    'and is not believed without saying so: %j',
    (answer) => {
      expect(() => saysCommitted(answer)).toThrow('did not say');
    },
  );

  test.each<[string, unknown, boolean]>([
    ['a full disk', { code: 'ER_DISK_FULL', errno: 1021, sqlState: 'HY000' }, true],
    ['a deadlock', { code: 'ER_LOCK_DEADLOCK', errno: 1213, sqlState: '40001' }, true],
    ['a server that shuts down', { code: 'ER_SERVER_SHUTDOWN', errno: 1053, sqlState: '08S01' }, false],
    ['a killed connection', { code: 'ER_CONNECTION_KILLED', errno: 1927, sqlState: '70100' }, false],
    ['a lost connection', { code: 'PROTOCOL_CONNECTION_LOST', fatal: true }, false],
    ['a reset', { code: 'ECONNRESET', errno: -104 }, false],
    ['nothing', null, false],
  ])('nothing of it took effect after %s: %j', (_name, error, refused) => {
    expect(isRefused(error)).toBe(refused);
  });
});
