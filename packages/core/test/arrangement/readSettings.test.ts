import { describe, expect, test } from '@jest/globals';
import { readSettings } from '@isomeros/core/arrangement';

describe('readSettings', () => {
  test.each([
    [{ pageSize: 100 }, null],
    [{ implicitId: 'uuid' }, null],
    [{ pageSize: 10_001 }, 'range'],
    [{ pageSize: 1.5 }, 'range'],
    [{ implicitId: 'snowflake' }, 'options'],
    [{ depth: 9 }, 'range'],
    [{ basePath: '/a/b' }, null],
    [{ basePath: 'a' }, 'pattern'],
    [{ version: '' }, 'pattern'],
    [{ invalidStatus: 422 }, null],
    [{ colour: 1 }, 'unknown'],
    [{ constructor: 1 }, 'unknown'],
  ])('%j', (given, code) => {
    const read = readSettings(given);
    expect(read.ok ? null : read.problems[0]?.code).toBe(code);
  });
});
