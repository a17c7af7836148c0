import { describe, expect, test } from '@jest/globals';
import { ConfigError, oldVariables, readConfig } from '../src/config.js';

const DATABASE = { ISOMEROS_DATABASE_URL: 'mariadb://a:b@127.0.0.1:4801/isomeros' };

describe('the environment', () => {
  test('a variable by the name of the version before is read, and what it is called now is said', () => {
    const before = { ...DATABASE, ISOMEROS_MOST_RECORDS: '500' };
    expect(readConfig(before).limits.records).toBe(500);
    expect(oldVariables(before)).toEqual([
      'ISOMEROS_MOST_RECORDS is called ISOMEROS_MAX_RECORDS now; the old name is read in this version only.',
    ]);
    expect(readConfig({ ...before, ISOMEROS_MAX_RECORDS: '600' }).limits.records).toBe(600);
    expect(oldVariables({ ...DATABASE, ISOMEROS_MAX_RECORDS: '600' })).toEqual([]);
  });

  test.each<readonly [string, Readonly<Record<string, string>>, RegExp]>([
    ['no database', { ISOMEROS_DATABASE_URL: '' }, /ISOMEROS_DATABASE_URL must be/],
    ['no port', { ISOMEROS_PORT: 'x' }, /ISOMEROS_PORT must be/],
    [
      'a port of the system for mocks',
      { ISOMEROS_MOCK_PORT: '80' },
      /ISOMEROS_MOCK_PORT must be a port from 1024/,
    ],
    ['a short token', { ISOMEROS_TOKEN: 'short' }, /16 characters or more/],
    ['an open host without a token', { ISOMEROS_HOST: '0.0.0.0' }, /others can reach/],
    ['no records at all', { ISOMEROS_MAX_RECORDS: '0' }, /ISOMEROS_MAX_RECORDS must be/],
    [
      'too many exchanges by the old name',
      { ISOMEROS_MOST_EXCHANGES: '1e9' },
      /ISOMEROS_MOST_EXCHANGES must be/,
    ],
  ])('%s is refused by the name of the variable', (_name, variables, message) => {
    const read = (): unknown => readConfig({ ...DATABASE, ...variables });
    expect(read).toThrow(ConfigError);
    expect(read).toThrow(message);
  });
});
