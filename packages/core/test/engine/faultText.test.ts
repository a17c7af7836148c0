import { describe, expect, test } from '@jest/globals';
import { printFaults, readFaults, type FaultRule } from '@isomeros/core/engine';
import fc from 'fast-check';
import { rounds } from '../support/rounds.js';

const OPERATIONS = new Set(['listPorts', 'createPort']);

const READ: readonly (readonly [text: string, items: readonly FaultRule[]])[] = [
  ['', []],
  ['\n  \n', []],
  ['all: 200 ms', [{ latency: { kind: 'fixed', ms: 200 } }]],
  ['all:50..400ms', [{ latency: { kind: 'uniform', from: 50, to: 400 } }]],
  [
    'createPort: around 300 ms by 80, cut 2%',
    [{ operation: 'createPort', latency: { kind: 'normal', mean: 300, deviation: 80 }, drop: 0.02 }],
  ],
  [
    'listPorts: 503 10%, 429 0.5%\nall: 4000 bytes/s',
    [
      {
        operation: 'listPorts',
        failures: [
          { status: 503, rate: 0.1 },
          { status: 429, rate: 0.005 },
        ],
      },
      { bytesPerSecond: 4000 },
    ],
  ],
];

const REFUSED: readonly (readonly [text: string, line: number, message: string])[] = [
  ['all 200 ms', 1, 'Expected all or the name of an operation, and a colon.'],
  ['\nnothing: 200 ms', 2, 'There is no operation nothing.'],
  ['all: 1 ms\nall: 2 ms', 2, 'all is told about twice.'],
  ['all: soon', 1, 'soon is not understood. Expected 200 ms'],
  ['all:', 1, 'Nothing is not understood.'],
  ['all: 1 ms, 2 ms', 1, 'An answer is held back in one way only.'],
  ['all: 60001 ms', 1, 'An answer is held back for at most 60000 ms.'],
  ['all: 418 5%', 1, 'Expected a failure of 429, 500, 502, 503, 504, not 418.'],
  ['all: 503 5%, 503 6%', 1, '503 is told twice.'],
  ['all: cut 120%', 1, 'Expected at most 100%.'],
  ['all: cut 60%, 500 60%', 1, 'Together more than 100% would fail.'],
  ['all: 0 bytes/s', 1, 'Expected one pace of at least 1 bytes/s.'],
];

const rate = fc.integer({ min: 0, max: 250 }).map((share) => share / 1_000);
const ms = fc.integer({ min: 0, max: 60_000 });

const parts = fc.record(
  {
    latency: fc.oneof(
      fc.record({ kind: fc.constant('fixed' as const), ms }),
      fc.record({ kind: fc.constant('uniform' as const), from: ms, to: ms }),
      fc.record({ kind: fc.constant('normal' as const), mean: ms, deviation: ms }),
    ),
    failures: fc.uniqueArray(
      fc.record({ status: fc.constantFrom(429 as const, 500 as const, 503 as const), rate }),
      { selector: ({ status }) => status, minLength: 1, maxLength: 2 },
    ),
    drop: rate,
    bytesPerSecond: fc.integer({ min: 1, max: 1_000_000 }),
  },
  { requiredKeys: ['drop'], noNullPrototype: true },
);

describe('what goes wrong, in lines', () => {
  test.each(READ)('%j is read', (text, items) => {
    expect(readFaults(text, OPERATIONS)).toEqual({ ok: true, items });
  });

  test.each(REFUSED)('%j is refused in line %d', (text, line, message) => {
    const read = readFaults(text, OPERATIONS);
    expect(read).toMatchObject({ ok: false, problems: [{ line }] });
    expect(read.ok ? '' : read.problems[0]?.message).toContain(message);
  });

  test('what is printed is read back as it was', () => {
    fc.assert(
      fc.property(parts, parts, (ofAll, ofOne) => {
        const items: readonly FaultRule[] = [ofAll, { operation: 'listPorts', ...ofOne }];
        expect(readFaults(printFaults(items), OPERATIONS)).toEqual({ ok: true, items });
      }),
      rounds(100),
    );
  });
});
